import { Button, Loader } from '@mantine/core';
import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { messageOf } from '../api/client';

/** Waiting, failed or there: the states that every place has, drawn once. */
export function Loaded<T>({
  query,
  what,
  children,
}: {
  query: UseQueryResult<T>;
  what: string;
  children: (data: T) => ReactNode;
}) {
  if (query.data !== undefined) return <>{children(query.data)}</>;
  if (query.isError)
    return (
      <div className="empty" role="alert">
        <p>
          {what} could not be loaded. {messageOf(query.error)}
        </p>
        <Button variant="outline" onClick={() => void query.refetch()}>
          Try again
        </Button>
      </div>
    );
  return (
    <div className="empty">
      <Loader aria-label={`Loading ${what}`} />
    </div>
  );
}

/** A refusal that belongs to no field on screen. */
export function Refusal({ error }: { error: unknown }) {
  return error ? (
    <p className="alert" role="alert">
      {messageOf(error)}
    </p>
  ) : null;
}
