import { Button, Textarea } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, problemOf, type Schemas } from '../api/client';
import { Dialog } from '../design/Dialog';
import { longDate, money } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';
import css from './MoneyIn.module.css';

type Dispute = Schemas['Dispute'];

function AnswerForm({
  dispute: d,
  draft,
  onClose,
}: {
  dispute: Dispute;
  draft: string;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  // What is shown here may be answered in another window: this answer takes the place of what was seen, or of none.
  const [before] = useState(d.evidence);
  const [evidence, setEvidence] = useState(before ?? draft);
  const answer = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/disputes/{id}/answer', {
          params: { path: { id: d.id } },
          body: { evidence, before },
        }),
      ),
    onSuccess: () => {
      tell('Your answer is on its way to the card processor.');
      onClose();
    },
    onSettled: () => queries.invalidateQueries(),
  });
  const wrong = problemOf(answer.error, 'evidence');
  return (
    <form
      className="form"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        answer.mutate();
      }}
    >
      <Textarea
        label="What speaks for you"
        description="Put together from what is known here. Say in your own words what was delivered, and take out what does not belong here."
        data-autofocus
        autosize
        minRows={10}
        maxRows={18}
        value={evidence}
        error={wrong}
        onChange={(e) => setEvidence(e.currentTarget.value)}
      />
      {!wrong && <Refusal error={answer.error} />}
      <Button type="submit" loading={answer.isPending}>
        Send the answer
      </Button>
    </form>
  );
}

function AnswerDialog({ dispute: d, onClose }: { dispute: Dispute; onClose: () => void }) {
  const draft = useQuery({
    queryKey: ['money-in', 'evidence', d.id],
    queryFn: () => data(api.GET('/api/disputes/{id}/evidence', { params: { path: { id: d.id } } })),
    staleTime: Infinity,
  });
  return (
    <Dialog onClose={onClose} size="xl" title={`Answer by ${longDate(d.days.answerBy)}`}>
      {draft.data ? (
        <AnswerForm dispute={d} draft={draft.data.text} onClose={onClose} />
      ) : (
        <Refusal error={draft.error} />
      )}
    </Dialog>
  );
}

const words: Record<Dispute['state'], string> = {
  open: 'It waits for your answer.',
  sending: 'Your answer is on its way to the card processor.',
  answered: 'You answered; the payer’s bank decides.',
  won: 'Won: the money is here again, and settles what it had settled.',
  lost: 'Lost: what it had settled stays open.',
};

/** What the payer's bank took back, why, and our answer. */
export function Contest({ dispute: d }: { dispute: Dispute }) {
  const [answering, setAnswering] = useState(false);
  const waits = d.state === 'open';
  return (
    <section className={css.contest} aria-label="Contested">
      <h2>Contested on {longDate(d.days.openedOn)}</h2>
      <p>
        {money(d.amount)} was taken back, “{d.reason}”, and {money(d.cost)} was kept for it. {words[d.state]}
        {waits && ` Answer by ${longDate(d.days.answerBy)}; without an answer it is lost.`}
        {d.days.decidedOn && ` Decided on ${longDate(d.days.decidedOn)}.`}
      </p>
      {d.evidence && (
        <details>
          <summary>Your answer{d.days.answeredOn ? ` of ${longDate(d.days.answeredOn)}` : ''}</summary>
          <p className={css.evidence}>{d.evidence}</p>
        </details>
      )}
      {(waits || d.state === 'answered') && (
        <Button variant={waits ? 'filled' : 'outline'} onClick={() => setAnswering(true)}>
          {waits ? 'Answer…' : 'Change the answer…'}
        </Button>
      )}
      {answering && <AnswerDialog dispute={d} onClose={() => setAnswering(false)} />}
    </section>
  );
}
