import { useCallback } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { AnswerOf, Api } from '@avrelle/core/api';
import { useMessages } from '../ui/Messages';
import { wordsOf } from './api';
import { call, type Arguments } from './call';
import { renew, type Change } from './stale';

interface Write<N extends keyof Api> {
  /** Resolves once what it made stale has come anew; rejects with a ProblemError, which forms say themselves. */
  readonly send: (...given: Arguments<Api[N]>) => Promise<AnswerOf<Api[N]>>;
  /** The same for a button: says where it is refused, goes on with `then` where it is not. */
  readonly run: (given: Arguments<Api[N]>[0], then?: (answer: AnswerOf<Api[N]>) => void) => void;
  readonly isPending: boolean;
  /** What is being sent, to be shown meanwhile. */
  readonly sending: Arguments<Api[N]>[0] | undefined;
}

/** A change on the server, by its endpoint; `stale` is what it makes stale. */
export function useWrite<N extends keyof Api>(name: N, stale?: Change): Write<N> {
  const client = useQueryClient();
  const messages = useMessages();
  const { mutateAsync, isPending, variables } = useMutation<AnswerOf<Api[N]>, Error, Arguments<Api[N]>>({
    mutationKey: [name],
    mutationFn: (given) => call(name, ...given),
    onSuccess: () => (stale ? renew(client, stale) : undefined),
  });
  const send = useCallback((...given: Arguments<Api[N]>) => mutateAsync(given), [mutateAsync]);
  const run = useCallback<Write<N>['run']>(
    (given, then) =>
      void mutateAsync([given] as Arguments<Api[N]>).then(then, (error: unknown) => messages.warn(wordsOf(error))),
    [mutateAsync, messages],
  );
  return { send, run, isPending, sending: isPending ? variables?.[0] : undefined };
}
