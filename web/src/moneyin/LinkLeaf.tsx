import { Button } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../api/client';
import { copyLink } from '../design/copyLink';
import form from '../design/Form.module.css';
import { isZero, longDate, money, plain, shortDate } from '../design/format';
import { Refusal } from '../design/States';
import { tell } from '../design/tell';
import { useOneLeaf } from '../design/useNarrow';
import { useTitle } from '../design/useTitle';
import { LinkForm } from './LinkForm';
import css from './MoneyIn.module.css';

type Record = Schemas['LinkRecord'];

/** What a link asks for. */
export const sumOf = (asks: Schemas['LinkAsks']) =>
  asks.least.amount === asks.most.amount ? money(asks.least) : `${money(asks.least)} – ${money(asks.most)}`;

function Paid({ record: r }: { record: Record }) {
  return (
    <>
      <h2>Paid through it</h2>
      {r.paid.length === 0 ? (
        <p className="faded">
          Nothing yet. Whoever pays becomes a client with the money, or is found among them.
        </p>
      ) : (
        <table className={css.lines} aria-label="Paid through it">
          <tbody>
            {r.paid.map((p) => (
              <tr key={p.key}>
                <td className={css.day}>{shortDate(p.on)}</td>
                <td>
                  <Link to={`/clients/${p.clientId}`}>{p.name}</Link>
                  <span className="faded"> · {p.how}</span>
                  {p.answers.map((a) => (
                    <span key={a.label} className="faded small" style={{ display: 'block' }}>
                      {a.label}: {a.text}
                    </span>
                  ))}
                </td>
                <td className={css.n}>
                  {p.invoiceId !== null && (
                    <Link to={`/invoices/${p.invoiceId}`}>
                      {p.invoiceNumber === 'draft' ? 'draft invoice' : p.invoiceNumber}
                    </Link>
                  )}
                </td>
                <td className={css.n}>
                  <Link to={`/money-in/${p.key}`}>{plain(p.amount)}</Link>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function Rules({ record: r }: { record: Record }) {
  const { link } = r;
  const rules = [
    link.rules.once ? 'It is paid once.' : 'It can be paid any number of times.',
    link.rules.endsOn && `Its last day is ${longDate(link.rules.endsOn)}.`,
    r.clientName && `It is for ${r.clientName}.`,
    link.rules.hold && 'A card’s money is only held, until you take it.',
    link.fields.length > 0 && `Its payer fills in: ${link.fields.map((f) => f.label).join(', ')}.`,
    link.rules.terms && 'Conditions are accepted before paying.',
    link.after.onward && `After paying it goes on to ${link.after.onward}.`,
  ].filter(Boolean);
  return <p className="faded">{rules.join(' ')}</p>;
}

/** The record leaf of one payment link. */
export function LinkLeaf({ record: r }: { record: Record }) {
  const { link } = r;
  const narrow = useOneLeaf();
  const [editing, setEditing] = useState(false);
  const queries = useQueryClient();
  useTitle(link.title);
  const close = useMutation({
    mutationFn: (closed: boolean) =>
      data(
        api.POST('/api/payment-links/{id}/close', {
          params: { path: { id: link.id } },
          body: { version: link.version, closed },
        }),
      ),
    onSuccess: (now) => tell(now.link.closed ? 'It takes no payments any more.' : 'It takes payments again.'),
    onSettled: () => queries.invalidateQueries(),
  });
  return (
    <div className="record">
      <div className={css.leaf}>
        <div className={css.inner}>
          {narrow && (
            <Link className="link" to="/money-in/links">
              All payment links
            </Link>
          )}
          <h1>{link.title}</h1>
          <p className="faded" style={{ margin: 0 }}>
            {sumOf(link.asks)} · {r.state.toLowerCase()} · {r.words}
          </p>
          {editing ? (
            <LinkForm record={r} onDone={() => setEditing(false)} />
          ) : (
            <>
              {link.description && <p className={css.said}>{link.description}</p>}
              <Rules record={r} />
              <h2>Where it is paid</h2>
              <div className={css.codes}>
                <img src={r.code} alt={`Square code that leads to ${r.page}`} />
                <div style={{ flex: '1 1 300px' }}>
                  <p className={css.address}>{r.page}</p>
                  <div className={form.acts}>
                    <Button onClick={() => void copyLink(r.page, 'The payment link is copied')}>
                      Copy the address
                    </Button>
                    <Button variant="outline" component="a" href={r.page} target="_blank" rel="noreferrer">
                      Open it
                    </Button>
                  </div>
                  <p>
                    The square code, to print:{' '}
                    <a className="link" href={`/api/payment-links/${link.id}/code.png`} download>
                      PNG
                    </a>
                    {' · '}
                    <a className="link" href={`/api/payment-links/${link.id}/code.svg`} download>
                      SVG
                    </a>
                  </p>
                  <p>
                    A button for your own web page:{' '}
                    <button
                      type="button"
                      className="link"
                      onClick={() => void copyLink(r.button, 'The button is copied, as HTML')}
                    >
                      Copy its HTML
                    </button>
                  </p>
                </div>
              </div>
              <Paid record={r} />
            </>
          )}
        </div>
      </div>
      {!editing && (
        <div className="foot">
          <span className="figure">
            <small>Paid through it</small>
            <b>{money(r.came)}</b>
          </span>
          {!isZero(r.came) && (
            <span className="figure">
              <small>Times</small>
              <b>{r.times}</b>
            </span>
          )}
          <div className="acts">
            <Refusal error={close.error} />
            <Button variant="outline" loading={close.isPending} onClick={() => close.mutate(!link.closed)}>
              {link.closed ? 'Open it again' : 'Close it'}
            </Button>
            <Button variant="outline" onClick={() => setEditing(true)}>
              Change…
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}
