import { useLocalStorage } from '@mantine/hooks';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, type KeyboardEvent, Suspense, useCallback, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { business as businessQuery, schedules } from '../api/business';
import { api, ApiError, data, messageOf, type Schemas } from '../api/client';
import { accountOf } from '../api/clients';
import { Loaded } from '../design/States';
import { useTitle } from '../design/useTitle';
import { SendDialog } from '../letters/SendDialog';
import { plainSlip, type Slip } from '../letters/slip';
import { Beside } from './Beside';
import { Conflict } from './Conflict';
import type { Desk } from './desk';
import { Deductions } from './Deductions';
import { Drawer } from './Drawer';
import { Files } from './Files';
import { blankDraft, scheduleOf, taxesOf } from './blankDraft';
import { blankLine, FieldProblem, isBlank, SheetField, usualTax } from './fields';
import { forget, rememberedOf } from './remembered';
import { PlanFields } from './PlanFields';
import { ScheduleEditor } from './ScheduleEditor';
import { editedDraft } from './scheduleEdits';
import css from './Sheet.module.css';
import { useSending } from './sending';
import { SheetBand } from './SheetBand';
import { SheetExtras } from './SheetExtras';
import { SheetFoot } from './SheetFoot';
import { linesOf, SheetLines } from './SheetLines';
import { SheetSums } from './SheetSums';
import { useDeleting } from './useDeleting';
import { type Typed, useDraft } from './useDraft';
import { WithdrawDialog } from './WithdrawDialog';
import { session as sessionQuery } from '../api/session';
import { Dialog } from '../design/Dialog';

const Conditions = lazy(() => import('../quotes/Conditions').then((m) => ({ default: m.Conditions })));
const AsTheClient = lazy(() => import('./AsTheClient').then((m) => ({ default: m.AsTheClient })));

/** The sheet: the invoice is written where it will be printed. */
export function Sheet({
  desk,
  draft,
  client,
}: {
  desk: Desk;
  draft: Schemas['DraftView'] | null;
  /** Whom it is for, where that was chosen before: on a client's account, or by adding one from here. */
  client: number | null;
}) {
  const business = useQuery(businessQuery);
  const session = useQuery(sessionQuery);
  const kept = useQuery(schedules);
  const begunFor = draft === null ? client : null;
  const account = useQuery({ ...accountOf(begunFor ?? 0), enabled: begunFor !== null });
  return (
    <Loaded query={business} what="the business">
      {(b) => (
        <Loaded query={kept} what="the schedules">
          {(all) =>
            begunFor !== null && account.isPending ? null : (
              <Writing
                desk={desk}
                draft={draft}
                client={client}
                begunFor={account.data?.client}
                business={b}
                kept={all}
                today={session.data?.today ?? ''}
              />
            )
          }
        </Loaded>
      )}
    </Loaded>
  );
}

/** What is written on most fields that must not stay empty, in words. */
const missingWords: [RegExp, string][] = [
  [/^clientId$/, 'the client'],
  [/^client\.email$/, 'the client’s e-mail address'],
  [/^supplyDate$/, 'the day of supply'],
  [/^offer\.validUntil$/, 'until when it holds'],
  [/^rate$/, 'the rate'],
  [/\.description$/, 'what a line is for'],
  [/\.unitPrice$/, 'a price'],
  [/\.quantity$/, 'a quantity'],
  [/\.taxes$/, 'a tax'],
  [/^schedule/, 'the schedule'],
];

function Writing({
  desk,
  draft,
  client,
  begunFor,
  business,
  kept,
  today,
}: {
  desk: Desk;
  draft: Schemas['DraftView'] | null;
  client: number | null;
  /** The record of whom a new sheet is begun for, with its own terms. */
  begunFor: Schemas['Client'] | undefined;
  business: Schemas['BusinessView'];
  kept: Schemas['KeptSchedule'][];
  today: string;
}) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  useTitle(draft ? 'Draft' : `New ${desk.kind}`);
  const quote = desk.kind === 'quote';
  const [draftId, setDraftId] = useState(draft?.id ?? null);
  // The address changes without a new page, so that nothing typed is lost and a reload finds the draft.
  const onBegun = useCallback(
    (id: number) => {
      // Whoever has left meanwhile is elsewhere.
      if (window.location.pathname.startsWith(desk.place))
        window.history.replaceState(null, '', `${desk.place}/${id}`);
      setDraftId(id);
    },
    [desk],
  );
  // What was begun for another client waits until a sheet for nobody in particular is opened.
  const [remembered] = useState(() => {
    const found = rememberedOf(draft?.id ?? `new-${desk.kind}`);
    return found && draft === null && client !== null && found.typed.clientId !== client ? null : found;
  });
  const d = useDraft(draft, blankDraft(desk, business, kept, today, begunFor), remembered, desk, onBegun);
  const { typed, change, reckoning, undo, redo } = d;
  const [removed, setRemoved] = useState<{ words: string; at: Typed } | null>(null);
  // What was taken off is said until something else is typed.
  const onRemoved = (words: string) => setRemoved({ words, at: d.latest.current });
  // A draft to which one comes back with a client: it is chosen, and the address says nothing of it any more.
  useEffect(() => {
    if (!draft || client === null) return;
    change((t) => ({ ...t, clientId: client }));
    window.history.replaceState(null, '', `${desk.place}/${draft.id}`);
  }, [draft, client, change, desk]);

  const account = useQuery({ ...accountOf(typed.clientId ?? 0), enabled: typed.clientId !== null }).data;
  const known = account && account.client.id === typed.clientId ? account : undefined;
  const own = business.business;
  const clientsTaxes = taxesOf(business, known?.client);
  const usual = clientsTaxes.length > 0 ? clientsTaxes : usualTax(business.taxes);
  const whyUsual =
    clientsTaxes.length > 0 ? `as kept with ${known?.client.name}` : 'as lines begin with, by Settings';

  /** Terms and currency that are kept with a client, where nothing else was typed. */
  const onClient = (id: number) => {
    void queries.fetchQuery(accountOf(id)).then(({ client: c }) => {
      change((t) => {
        const { currency } = c.more;
        const before = known && known.client.id === t.clientId ? known.client : undefined;
        const untouched = [undefined, before].some(
          (of) => JSON.stringify(t.schedule) === JSON.stringify(scheduleOf(business, kept, of)),
        );
        const schedule = untouched ? scheduleOf(business, kept, c) : t.schedule;
        const other = currency && t.currency === own.currency ? currency : t.currency;
        return JSON.stringify(schedule) === JSON.stringify(t.schedule) && other === t.currency
          ? t
          : { ...t, schedule, currency: other };
      });
    });
    document.querySelector<HTMLElement>('[data-field="subject"]')?.focus();
  };

  const ensure = async () => {
    if (d.id.current === null) change((t) => ({ ...t }));
    await d.keep();
    return d.id.current;
  };
  const isEmpty = d.id.current === null && !typed.subject && typed.lines.every((l) => !l.description);
  const newClient = async () => {
    const back = isEmpty ? 'new' : await ensure();
    void navigate(`/clients/new?${desk.kind}=${back ?? 'new'}`);
  };
  const [sending, setSending] = useState<number | null>(null);
  const [looking, setLooking] = useState<{ id: number; page: Schemas['PublicPage'] } | null>(null);
  const [voiding, setVoiding] = useState(false);
  const [folded, setFolded] = useLocalStorage({ key: 'quill-drawer-folded', defaultValue: false });
  /** Keeps what is typed, then does something with the draft; what is refused stands beside its field. */
  const withKept = async <T,>(what: (id: number) => Promise<T>): Promise<T> => {
    if (!(await d.keep())) throw new Error('It could not be kept, so it was not issued.');
    if (d.id.current === null) throw new Error('Write something first.');
    return what(d.id.current);
  };
  const refused = (error: Error) => d.setProblems(error instanceof ApiError ? error.problems : []);
  const letter = (id: number, slip: Slip) => desk.letter(id, d.version.current, slip);
  const issue = useMutation({
    mutationFn: () =>
      withKept(async (id) => {
        await desk.issue(id, d.version.current);
        return id;
      }),
    onSuccess: async (id) => {
      await queries.invalidateQueries();
      void navigate(`${desk.place}/${id}`, { replace: true });
    },
    onError: refused,
  });
  // Before the letter is shown it is asked for once, so that what is missing is told beside its field.
  const toSend = useMutation({
    mutationFn: () =>
      withKept(async (id) => {
        await letter(id, plainSlip);
        return id;
      }),
    onSuccess: (id) => {
      d.setProblems([]);
      setSending(id);
    },
    onError: refused,
  });
  const look = useMutation({
    mutationFn: () =>
      withKept(async (id) => ({
        id,
        page: await data(
          api.POST('/api/invoices/{id}/client-page', {
            params: { path: { id } },
            body: { version: d.version.current },
          }),
        ),
      })),
    onSuccess: (looked) => {
      d.setProblems([]);
      setLooking(looked);
    },
    onError: refused,
  });
  const begin = (act: { mutate: () => void }) => {
    for (const other of [issue, toSend, look]) other.reset();
    act.mutate();
  };
  useSending(() => begin(toSend));
  const deleting = useDeleting(typed, d.id, d.version, d.keep, desk);
  // Ctrl Enter leads on, and Ctrl Z back, from wherever one stands on the sheet.
  const keys = (event: KeyboardEvent) => {
    if (!(event.ctrlKey || event.metaKey) || event.altKey || sending !== null) return;
    if (event.key === 'Enter') {
      event.preventDefault();
      if (!toSend.isPending) begin(toSend);
    } else step(event, undo, redo);
  };
  // Where nothing of the sheet has the focus, the same keys count.
  useEffect(() => {
    const listen = (event: globalThis.KeyboardEvent) => {
      if (document.activeElement === document.body && (event.ctrlKey || event.metaKey))
        step(event, undo, redo);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [undo, redo]);

  const notDone: Error | null = issue.error ?? toSend.error ?? look.error;
  // Fields left empty are told only once somebody wants to issue; slips are told as they are typed.
  const slips = (reckoning?.problems ?? []).filter((p) => p.value !== '' && p.field !== 'total');
  const told = [...d.problems, ...slips.filter((s) => !d.problems.some((p) => p.field === s.field))];
  const of = (field: string) => told.find((p) => p.field === field)?.message;
  const loose = d.problems.filter((p) => ['lines', 'total', 'client.email', 'currency'].includes(p.field));
  const field = { typed, change, of };
  const part = { ...field, reckoning, taxes: business.taxes, onRemoved };
  // What the plan and the ways of the draft depend on.
  const fresh = `${typed.clientId ?? ''} ${reckoning?.installments.map((i) => `${i.dueOn} ${i.amount.amount}`).join(' ') ?? ''}`;
  const missing = useMissing(typed, reckoning, known?.client, quote);

  return (
    <div className={`writing ${css.spread} ${folded ? css.folded : ''}`} onKeyDown={keys}>
      <Drawer
        typed={typed}
        change={change}
        reckoning={reckoning}
        account={known}
        onChoose={(choice) =>
          change((t) => {
            const written = t.lines.filter((l) => !isBlank(l));
            const added = linesOf(choice, t, usual, clientsTaxes.length > 0);
            return { ...t, lines: [...written, ...added, blankLine(usual)] };
          })
        }
        onNewClient={() => void newClient()}
        onFold={() => setFolded(true)}
      />
      <div className={`record ${css.record}`}>
        <div className={css.body}>
          {folded && (
            <button type="button" className={css.unfold} onClick={() => setFolded(false)}>
              Show the drawer
            </button>
          )}
          <div className={css.page}>
            <article className={`sheet ${css.sheet}`} aria-label={`${desk.title}, not issued yet`}>
              <SheetBand
                {...field}
                title={desk.title}
                business={business}
                client={known?.client}
                number={draft?.number ?? null}
                onClient={onClient}
                onNewClient={() => void newClient()}
              />
              <SheetLines
                {...part}
                choices={quote}
                usual={usual}
                whyUsual={whyUsual}
                clientsOwn={clientsTaxes.length > 0}
              />
              <SheetExtras {...part} />
              <Deductions of={reckoning?.deductions ?? []} />
              <FieldProblem text={of('lines')} />
              {reckoning?.notes.map((note) => (
                <p key={note} className="soon small">
                  {note}
                </p>
              ))}
              <div className={css.below}>
                <div>
                  <h2>
                    {quote ? 'How it is to be paid' : 'To be paid'}
                    {quote && <span className="faded small"> as if it were accepted today</span>}
                  </h2>
                  <ScheduleEditor
                    schedule={typed.schedule}
                    onChange={(edit, what) => change((t) => ({ ...t, schedule: edit(t.schedule) }), what)}
                    installments={reckoning?.installments ?? []}
                    edited={editedDraft(typed)}
                    of={of}
                    onRemoved={onRemoved}
                  />
                  {!quote && <PlanFields typed={typed} change={change} of={of} />}
                </div>
                <div>
                  <SheetSums typed={typed} change={change} reckoning={reckoning} of={of} />
                  <FieldProblem
                    text={
                      reckoning?.problems.find((p) => p.field === 'total' && p.value.startsWith('-'))?.message
                    }
                  />
                </div>
              </div>
              {quote && (
                <Suspense fallback={null}>
                  <Conditions typed={typed} change={change} problem={of('offer.conditions')} />
                </Suspense>
              )}
              <Texts {...field} footer={own.habits.footer} />
            </article>
            <div className={css.beside}>
              <div>
                <Files id={draftId} ensure={ensure} />
                <SheetField
                  name="memo"
                  label="Private note, never printed"
                  hint="what only you should know"
                  long
                  {...field}
                />
              </div>
              <div>
                {draftId !== null && !quote && (
                  <Beside id={draftId} fresh={fresh} kept={d.keeping.state === 'kept'} />
                )}
              </div>
            </div>
          </div>
        </div>
        <SheetFoot
          reckoning={reckoning}
          keeping={d.keeping}
          removed={removed?.at === typed ? removed.words : ''}
          missing={missing}
          issuing={issue.isPending}
          sending={toSend.isPending}
          deleteWords={draft?.number ? `Void ${draft.number}…` : 'Delete draft'}
          onUndo={undo}
          onLook={quote ? null : () => begin(look)}
          onIssue={() => begin(issue)}
          onSend={() => begin(toSend)}
          onDelete={() => (draft?.number ? setVoiding(true) : deleting.begin())}
        >
          {notDone !== null && (
            <p className="problem" role="alert" style={{ flexBasis: '100%' }}>
              Not yet. {messageOf(notDone)} {loose.map((p) => p.message).join(' ')}
            </p>
          )}
          {deleting.error !== null && (
            <p className="problem" role="alert" style={{ flexBasis: '100%' }}>
              {messageOf(deleting.error)}
            </p>
          )}
        </SheetFoot>
      </div>
      {sending !== null && (
        <SendDialog
          title="Issue and send"
          action="Issue and send"
          later={!quote}
          mailOnly={quote}
          look={(slip) => letter(sending, slip)}
          send={async (slip) => {
            await desk.issueAndSend(sending, d.version.current, slip);
            forget(sending);
            void navigate(`${desk.place}/${sending}`, { replace: true });
          }}
          onClose={() => setSending(null)}
        />
      )}
      {looking !== null && (
        <Suspense fallback={null}>
          <AsTheClient {...looking} version={d.version.current} onClose={() => setLooking(null)} />
        </Suspense>
      )}
      {voiding && draft?.number && (
        <WithdrawDialog id={draft.id} number={draft.number} forGood onClose={() => setVoiding(false)} />
      )}
      {d.other && (
        <Conflict
          desk={desk}
          mine={typed}
          other={d.other}
          onMine={() => void d.keepMine()}
          onTheirs={d.takeTheirs}
        />
      )}
      <Dialog opened={deleting.asking} onClose={deleting.cancel} title="Delete this draft and its files?">
        <p style={{ marginTop: 0 }}>The draft can be brought back; the files that were added to it cannot.</p>
        <button type="button" className="link late" onClick={deleting.confirm}>
          Delete draft and files
        </button>
      </Dialog>
    </div>
  );
}

/** Ctrl Z is a step back; Ctrl Y and Ctrl Shift Z one forth. The browser's own steps know nothing of the sheet. */
function step(
  event: Pick<globalThis.KeyboardEvent, 'key' | 'shiftKey' | 'preventDefault'>,
  undo: () => void,
  redo: () => void,
) {
  const key = event.key.toLowerCase();
  if (key !== 'z' && key !== 'y') return;
  event.preventDefault();
  if (key === 'y' || event.shiftKey) redo();
  else undo();
}

/** The texts under the sums; each stands there once it has one, or was called for. */
function Texts({
  footer,
  ...field
}: {
  typed: Typed;
  change: (edit: (before: Typed) => Typed, what?: string) => void;
  of: (field: string) => string | undefined;
  footer: string;
}) {
  const [called, setCalled] = useState<string[]>([]);
  const texts = [
    ['notes', 'A note to the client', 'printed under the sums'],
    ['terms', 'Terms', 'how and when to pay, what is agreed'],
  ] as const;
  const here = (name: 'notes' | 'terms') => Boolean(field.typed[name]) || called.includes(name);
  return (
    <div className={css.texts}>
      {texts
        .filter(([name]) => here(name))
        .map(([name, label, hint]) => (
          <SheetField
            key={name}
            name={name}
            label={label}
            hint={hint}
            long
            autoFocus={called.at(-1) === name}
            {...field}
          />
        ))}
      <p className={css.call}>
        {texts
          .filter(([name]) => !here(name))
          .map(([name, label]) => (
            <button key={name} type="button" onClick={() => setCalled((c) => [...c, name])}>
              + {label}
            </button>
          ))}
      </p>
      <p className="faded small pre" style={{ margin: 0 }}>
        {footer}
      </p>
    </div>
  );
}

/** What is missing before it can be sent, with where it is written. */
function useMissing(
  typed: Typed,
  reckoning: Schemas['Reckoning'] | null,
  client: Schemas['Client'] | undefined,
  quote: boolean,
) {
  const wanted = [
    ...(typed.clientId === null ? ['clientId'] : []),
    ...(client && !client.email ? ['client.email'] : []),
    ...(!quote && !typed.supplyDate ? ['supplyDate'] : []),
    ...(reckoning?.problems ?? []).filter((p) => p.value === '').map((p) => p.field),
  ];
  const words = (f: string) => missingWords.find(([pattern]) => pattern.test(f))?.[1];
  const seen = new Set<string>();
  const missing = wanted.flatMap((f) => {
    const said = words(f);
    if (!said || seen.has(said)) return [];
    seen.add(said);
    return [{ words: said, focus: () => focusField(f) }];
  });
  const empty = typed.lines.every(isBlank);
  return empty ? [...missing, { words: 'a line', focus: () => focusField('lines[0].description') }] : missing;
}

function focusField(field: string) {
  const line = /^lines\[(\d+)]\.(\w+)$/.exec(field);
  const found = line
    ? document.querySelector<HTMLElement>(
        line[2] === 'taxes'
          ? `[aria-label="Tax, line ${Number(line[1]) + 1}"]`
          : `[data-cell="${line[1]}-${line[2]}"]`,
      )
    : field.startsWith('client')
      ? document.querySelector<HTMLElement>('.sheet input')
      : [...document.querySelectorAll<HTMLElement>('.sheet .cell[aria-invalid]')].find((e) =>
          e.closest('label')?.textContent?.startsWith(field === 'supplyDate' ? 'Supplied' : 'Rate'),
        );
  found?.focus();
}
