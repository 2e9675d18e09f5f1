import type { Schemas } from '../api/client';
import { isZero, longDate, money, plain, shortDate, spokenDate } from '../design/format';
import { Coming } from './Coming';
import { MeasureFigure } from '../design/Measure';
import { Paying } from './Paying';
import { Picker } from './Picker';
import { KeptHere, Planned, useSaved } from './Saved';
import { Signing } from './Signing';
import { SumRows } from './SumRows';
import { useSaid } from './useSaid';

type Page = Schemas['PublicPage'];

function Ask({ page: p }: { page: Page }) {
  const d = p.document;
  const next = p.measure.find((m) => !isZero(m.open));
  const what = d.matter.subject ? `, for ${d.matter.subject}` : '';
  const whole = p.creditNotes.find((n) => n.whole);
  if (p.voidedOn)
    return (
      <p className="ask">
        {d.to.name}, this invoice is void. <b>You owe nothing on it.</b>
      </p>
    );
  if (whole)
    return (
      <p className="ask">
        {d.to.name}, this invoice was taken back by credit note {whole.number}. <b>You owe nothing on it.</b>
      </p>
    );
  if (!next && p.measure.some((m) => m.standing === 'WRITTEN_OFF'))
    return (
      <p className="ask">
        {d.to.name}, nothing more is to be paid{what}.
      </p>
    );
  if (!next)
    return (
      <p className="ask">
        {d.to.name}, <b>{money(d.sums.total)}</b> is paid{what}. Thank you; you owe nothing here.
      </p>
    );
  // What brings all of it already: a bank debit, or what is held on a card.
  if (p.paying.choices.length === 0 && p.moving.coming.length > 0)
    return (
      <p className="ask">
        {d.to.name}, <b>nothing is to be done now</b>
        {what}.
      </p>
    );
  const asked = p.paying.choices[0]?.amount ?? next.open;
  const late = p.measure.filter((m) => !isZero(m.open) && m.standing === 'LATE');
  const debts = late.filter((m) => m.kind !== 'LATE_FEE');
  const fees = p.measure.filter(
    (m) => m.kind === 'LATE_FEE' && !isZero(m.open) && m.dueOn !== null && m.dueOn <= p.today,
  );
  if (!late.length)
    return (
      <p className="ask">
        {d.to.name}, <b>{money(asked)}</b>{' '}
        {next.dueOn === null ? (
          <>
            is to be paid{what}: {next.note}.
          </>
        ) : (
          <>
            {next.dueOn === p.today ? 'is due today,' : 'is due by'} <b>{spokenDate(next.dueOn)}</b>
            {what}.
          </>
        )}
      </p>
    );
  // Since when is said of one debt only, never of a sum of several; a fee was not due before it was charged.
  const one = debts.length === 1 ? debts[0] : undefined;
  const oldest = spokenDate((debts[0] ?? next).dueOn ?? p.today);
  const fee =
    fees.length === 1 && fees[0] ? `the late fee of ${longDate(fees[0].dueOn ?? p.today)}` : 'the late fees';
  if (one)
    return (
      <p className="ask">
        {d.to.name}, <b className="late">{money(one.open)}</b> was due on <b>{oldest}</b>
        {what}
        {asked.amount !== one.open.amount && (
          <>
            ; with {fees.length ? fee : 'what is due today'} <b className="late">{money(asked)}</b> is to be
            paid now
          </>
        )}
        .
      </p>
    );
  return (
    <p className="ask">
      {d.to.name}, <b className="late">{money(asked)}</b> is to be paid now{what}
      {debts.length ? (
        <>
          ; the oldest of it was due on <b>{oldest}</b>
          {fees.length > 0 && `, and ${fee} ${fees.length === 1 ? 'is' : 'are'} in it`}
        </>
      ) : (
        `: ${fee}`
      )}
      .
    </p>
  );
}

/**
 * What one client sees: who asks, for what, how much, by when; then the ways to pay, then the lines.
 *
 * @param token of its link; null where the business looks at it beforehand, and nothing can be done
 */
export function PageBody({
  page,
  token,
  onPage,
  onPaid,
  onStale,
}: {
  page: Page;
  token: string | null;
  onPage?: (page: Page) => void;
  onPaid?: () => void;
  onStale: () => void;
}) {
  const [saved, setSaved] = useSaved(
    token,
    `${page.open.amount} ${page.moving.coming.length} ${page.moving.received.length}`,
  );
  const d = page.document;
  const { acceptance, picked } = page.paying.plan;
  const unsigned = acceptance !== null && acceptance.name === null;
  const place = useSaid(`${acceptance?.name ?? ''} ${picked ?? ''}`);
  const Box = token ? 'main' : 'div';
  const link = (to: string) => (token ? { href: `/api/public/${token}/${to}` } : {});
  return (
    <Box className="client">
      <header className="top">
        {d.look.logo ? (
          <img
            src={token ? `/api/public/${token}/logo` : `/api/business/logo/${d.look.logo}`}
            alt={d.from.name}
            className="logo"
          />
        ) : (
          <b>{d.from.name}</b>
        )}
        <span className="faded">Invoice {d.number}</span>
      </header>
      {token && (
        <h1 style={{ position: 'absolute', left: -9999 }}>
          Invoice {d.number} from {d.from.name}
        </h1>
      )}
      <Ask page={page} />
      {page.measure.length > 0 && <MeasureFigure parts={page.measure} forClient />}
      {page.moving.said && (
        <p className={`told pre ${page.moving.said.refused ? 'refused' : ''}`} role="status">
          {page.moving.said.text}
        </p>
      )}
      {page.moving.coming.map((c, i) => (
        <Coming key={i} amount={c.amount} on={c.on} held={c.held} />
      ))}
      {page.moving.received.length > 0 && (
        <div className="told" role="status">
          {page.moving.received.map((r, i) => (
            <div key={`${r.on}-${i}`}>
              {money(r.amount)} received {shortDate(r.on)}, {r.how}.
            </div>
          ))}
          {!isZero(page.credit) && <div>{money(page.credit)} of yours is held as credit.</div>}
        </div>
      )}
      {page.moving.tests.length > 0 && (
        <div className="told" role="status">
          {page.moving.tests.map((t, i) => (
            <div key={`${t.on}-${i}`}>
              Test: {money(t.amount)} {t.how}, {shortDate(t.on)}. Nothing was taken, and nothing is settled.
            </div>
          ))}
        </div>
      )}
      {(acceptance?.name || picked) && (
        <p className="told" role="status" tabIndex={-1} ref={place}>
          {acceptance?.name && (
            <>
              Accepted on {longDate(acceptance.on ?? page.today)} by {acceptance.name}.{' '}
            </>
          )}
          {picked && <>You picked {picked} monthly installments.</>}
        </p>
      )}
      {unsigned && token && onPage ? (
        <Signing page={page} token={token} onDone={onPage} onStale={onStale} />
      ) : (
        <>
          {saved && token && <Planned saved={saved} token={token} onSaved={setSaved} onStale={onStale} />}
          <Paying
            page={page}
            token={token}
            saved={saved}
            onSaved={setSaved}
            onPaid={onPaid ?? onStale}
            onStale={onStale}
          />
          {page.paying.plan.most > 1 && token && onPage && (
            <Picker page={page} token={token} onDone={onPage} onStale={onStale} />
          )}
        </>
      )}
      {saved && token && <KeptHere saved={saved} from={d.from.name} token={token} onSaved={setSaved} />}
      <h2>What it is for</h2>
      <dl>
        {d.body.lines.map((l, i) => (
          <div key={`${i}-${l.description}`}>
            <dt>
              {l.description}
              <span className="faded small">
                {' '}
                {[
                  d.look.lineShows !== 'amount' &&
                    `${l.quantity} ${l.unit} × ${plain({ amount: l.unitPrice })}`,
                  l.discount && `less ${l.discount}`,
                ]
                  .filter(Boolean)
                  .join(', ')}
              </span>
              {l.note && <span className="under small faded pre">{l.note}</span>}
            </dt>
            <dd>{plain(l.sums.net)}</dd>
          </div>
        ))}
        <SumRows document={d} />
        {!isZero(d.sums.prepaid) && (
          <div>
            <dt>Deposit already paid</dt>
            <dd>−{plain(d.sums.prepaid)}</dd>
          </div>
        )}
        {!isZero(d.sums.rounding) && (
          <div>
            <dt>Rounding, paid in cash</dt>
            <dd>{plain(d.sums.rounding)}</dd>
          </div>
        )}
        {d.sums.due.amount !== d.sums.total.amount && (
          <div className="total">
            <dt>To be paid</dt>
            <dd>{money(d.sums.due)}</dd>
          </div>
        )}
        {d.body.job && (
          <div>
            <dt className="faded small">
              Part of quote {d.body.job.quote}, accepted for {money(d.body.job.total)};{' '}
              {isZero(d.body.job.left)
                ? 'with this all of it is invoiced'
                : `${money(d.body.job.left)} is left to invoice`}
              .
            </dt>
          </div>
        )}
        {page.creditNotes.map((n) => (
          <div key={n.id}>
            <dt>
              <a {...link(`credit-notes/${n.id}/pdf`)}>Credit note {n.number}</a>
              <span className="faded small">
                {' '}
                {shortDate(n.on)}, {n.reason}
              </span>
            </dt>
            <dd>−{plain(n.total)}</dd>
          </div>
        ))}
        {page.measure
          .filter((p) => p.kind === 'LATE_FEE' && p.standing !== 'CREDITED')
          .map((p) => (
            <div key={p.id}>
              <dt>
                Late fee of {p.dueOn && longDate(p.dueOn)}
                {p.note && <span className="faded"> {p.note}</span>}
              </dt>
              <dd>{plain(p.amount)}</dd>
            </div>
          ))}
      </dl>
      <p>
        <a {...link('pdf')}>Save as PDF</a>
        {page.files.map((f) => (
          <span key={f.id}>
            {' · '}
            <a {...link(`files/${f.id}`)}>{f.name}</a>
          </span>
        ))}
      </p>
      <p className="faded small pre">
        {d.from.name}
        {'\n'}
        {d.from.address}
        {'\n'}
        {d.from.email}
        {d.from.taxNumber && `\nTax number ${d.from.taxNumber}`}
        {'\n'}Issued {longDate(d.issuedOn)}
        {d.matter.reference && `\nYour order ${d.matter.reference}`}
        {d.matter.project && `\nProject ${d.matter.project}`}
        {d.matter.fields.map((f) => `\n${f.label}: ${f.value}`)}
        {d.paying.lateFee && `\n${d.paying.lateFee}`}
        {d.matter.notes && `\n\n${d.matter.notes}`}
        {d.matter.terms && `\n\n${d.matter.terms}`}
      </p>
    </Box>
  );
}
