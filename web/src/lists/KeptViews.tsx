import { TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { api, data, problemOf } from '../api/client';
import { keptViews } from '../api/lists';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';
import css from './lists.module.css';

/** Views of a list kept under a name: a press shows one again. */
export function KeptViews({ place }: { place: string }) {
  const { search } = useLocation();
  const shows = search.replace(/^\?/, '');
  const queries = useQueryClient();
  const views = useQuery(keptViews(place));
  const [naming, setNaming] = useState(false);
  const [name, setName] = useState('');
  const again = () => queries.invalidateQueries({ queryKey: keptViews(place).queryKey });
  const keep = useMutation({
    mutationFn: () => data(api.POST('/api/views', { body: { place, name, shows } })),
    onSuccess: () => {
      setNaming(false);
      setName('');
      void again();
    },
  });
  const forget = useMutation({
    mutationFn: (id: number) => data(api.DELETE('/api/views/{id}', { params: { path: { id } } })),
    onSuccess: () => {
      tell('The kept view is forgotten; what it showed is all there.');
      void again();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep.mutate();
  };
  const here = views.data?.find((v) => v.shows === shows);
  if (!views.data || (views.data.length === 0 && shows === '')) return null;
  return (
    <div className={css.views}>
      {views.data.map((v) => (
        <Link
          key={v.id}
          className={v === here ? css.here : 'link'}
          aria-current={v === here ? 'true' : undefined}
          to={{ pathname: place, search: v.shows }}
        >
          {v.name}
        </Link>
      ))}
      {here && (
        <button type="button" className="link" onClick={() => forget.mutate(here.id)}>
          Forget this view
        </button>
      )}
      {!here && shows !== '' && !naming && (
        <button type="button" className="link" onClick={() => setNaming(true)}>
          Keep this view…
        </button>
      )}
      {naming && (
        <form onSubmit={submit} className={css.naming}>
          <TextInput
            size="xs"
            aria-label="Name of this view"
            placeholder="Name of this view"
            autoFocus
            value={name}
            error={problemOf(keep.error, 'name')}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          <button type="submit" className="link">
            Keep it
          </button>
          <button type="button" className="link" onClick={() => setNaming(false)}>
            Not now
          </button>
        </form>
      )}
      <Refusal error={problemOf(keep.error, 'name') ? null : keep.error} />
    </div>
  );
}
