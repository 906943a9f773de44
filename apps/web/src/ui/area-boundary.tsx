import { Button } from 'antd';
import { Component, type ReactNode } from 'react';

interface Props {
  /** What stops, in words: "This stage". */
  readonly name: string;
  /** Another one begins afresh: the address of the stage, as an example. */
  readonly resetKey?: unknown;
  readonly children: ReactNode;
}

/** Keeps an error in one area of the page from taking the others with it. What was typed and sent is kept by the outbox. */
export class AreaBoundary extends Component<Props, { readonly error: Error | null; readonly key: unknown }> {
  override state = { error: null as Error | null, key: this.props.resetKey };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  static getDerivedStateFromProps({ resetKey }: Props, { key }: { readonly key: unknown }) {
    return resetKey === key ? null : { error: null, key: resetKey };
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <section className="zb-panel" role="alert">
        <div className="zb-empty-words">
          <p>
            {this.props.name} stopped; the rest of the page goes on, and what you entered is kept. The reason,
            for whoever mends it: {error.message}
          </p>
          <Button onClick={() => this.setState({ error: null })}>Try again</Button>
        </div>
      </section>
    );
  }
}
