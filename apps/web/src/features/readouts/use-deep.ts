import { useEffect, useState } from 'react';
import type { DeepAnswer, DeepRequest } from '../../compute/deep.ts';
import { startDeep } from '../../compute/jobs.ts';

export type DeepState =
  | { readonly is: 'idle' }
  | { readonly is: 'running'; readonly fraction: number; readonly cancel: () => void }
  | { readonly is: 'stopped' }
  | { readonly is: 'made'; readonly answer: DeepAnswer };

/** An analysis made in a worker when it is asked for; asked again, or for something else, the old one is dropped. */
export function useDeep(request: DeepRequest | null): DeepState {
  const [state, setState] = useState<DeepState>({ is: 'idle' });
  useEffect(() => {
    if (!request) return;
    let isCurrent = true;
    const job = startDeep(request, (fraction) => {
      if (isCurrent) setState({ is: 'running', fraction, cancel });
    });
    function cancel() {
      isCurrent = false;
      job.cancel();
      setState({ is: 'stopped' });
    }
    queueMicrotask(() => isCurrent && setState({ is: 'running', fraction: 0, cancel }));
    void job.result.then(
      (answer) => isCurrent && setState({ is: 'made', answer }),
      (error: Error) =>
        isCurrent &&
        setState({
          is: 'made',
          answer: { kind: request.kind, ok: false, sentence: `It stopped: ${error.message}`, series: [] },
        }),
    );
    return () => {
      isCurrent = false;
      job.cancel();
    };
  }, [request]);
  return request ? state : { is: 'idle' };
}
