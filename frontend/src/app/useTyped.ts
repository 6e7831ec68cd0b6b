import { useMutation, type MutateOptions } from '@tanstack/react-query';
import { useRef } from 'react';
import { unwrap } from '../api/client';
import { useEntered, type Entered } from './works';

interface Answer<R> {
  data?: R;
  error?: unknown;
  response: Response;
}

interface Stamped<T> {
  body: T;
  how: Entered;
}

/**
 * Sends something typed, with the unit, the decimal mark and the person of the press. What was asked about is sent once more, as
 * meant, by `confirm`.
 */
export function useTyped<T extends object, R>(
  send: (body: T & Entered) => Promise<Answer<R>>,
  onSuccess?: (answer: R, how: Entered) => unknown,
) {
  const entered = useEntered();
  const last = useRef<MutateOptions<R, Error, Stamped<T>>>({});
  const mutation = useMutation<R, Error, Stamped<T>>({
    mutationFn: ({ body, how }) => unwrap(send({ ...body, ...how })),
    onSuccess: (answer, { how }) => onSuccess?.(answer, how),
  });
  const { mutate, variables } = mutation;
  return {
    ...mutation,
    mutate: (body: T, options: MutateOptions<R, Error, Stamped<T>> = {}) => {
      last.current = options;
      mutate({ body, how: entered() }, options);
    },
    confirm: () => {
      if (variables) mutate({ ...variables, how: { ...variables.how, meant: true } }, last.current);
    },
  };
}
