import { Button } from 'antd';
import { Component, type ReactNode } from 'react';

/** What is shown when a screen fails: calm, and with a way on. What was typed and sent is kept by the outbox. */
export class ErrorBoundary extends Component<{ children: ReactNode }, { error: Error | null }> {
  override state = { error: null as Error | null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <main className="zb-empty">
        <h1>This screen stopped</h1>
        <p>What you entered is kept. The reason, for whoever mends it: {error.message}</p>
        <Button type="primary" onClick={() => location.assign('/')}>
          Back to the bench
        </Button>
      </main>
    );
  }
}
