package quill.server.processor;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedWord;
import quill.core.document.CreditorReference;
import quill.server.QuillSettings;
import quill.server.audit.Happenings;
import quill.server.business.BankAccounts;
import quill.server.business.BusinessService;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.RandomText;
import quill.server.common.Texts;
import quill.server.processor.ProcessorRepository.Stored;

/** Setting up card processors. What is secret goes in and never comes out again. */
@Service
public class ProcessorSettings {
    private static final int MOST = 10;
    private static final int LONGEST_CREDENTIAL = 2000;
    private static final int KEY_BYTES = 18;
    private final Processors processors;
    private final ProcessorRepository repository;
    private final Sealing sealing;
    private final BankAccounts accounts;
    private final BusinessService business;
    private final QuillSettings settings;
    private final Happenings happenings;
    private final ApplicationEventPublisher publisher;

    ProcessorSettings(
            Processors processors,
            ProcessorRepository repository,
            Sealing sealing,
            BankAccounts accounts,
            BusinessService business,
            QuillSettings settings,
            Happenings happenings,
            ApplicationEventPublisher publisher) {
        this.processors = processors;
        this.repository = repository;
        this.sealing = sealing;
        this.accounts = accounts;
        this.business = business;
        this.settings = settings;
        this.happenings = happenings;
        this.publisher = publisher;
    }

    /** A credential as it is shown. @param value empty where it is secret @param given whether there is one */
    record CredentialView(ProcessorAdapter.CredentialField field, boolean given, String value) {}

    /**
     * A processor as it is shown.
     *
     * @param fromSettings whether its credentials stand in the settings file, and can be changed there only
     * @param eventsTo the address that it is to send its events to
     * @param paysInto an IBAN; empty for none
     * @param warnings what is to be done about it
     */
    record ProcessorView(
            long id,
            String name,
            String kind,
            String title,
            ProcessorMode mode,
            boolean fromSettings,
            String eventsTo,
            String paysInto,
            List<CredentialView> credentials,
            List<String> warnings,
            int version) {}

    /** A kind that can be set up. */
    record ProcessorKind(String kind, String title, List<ProcessorAdapter.CredentialField> fields) {}

    /** An account that can be paid out to. */
    record PayoutAccount(String iban, String words) {}

    /** All that there is to set. */
    record ProcessorsView(List<ProcessorView> processors, List<ProcessorKind> kinds, List<PayoutAccount> accounts) {}

    /** As typed. @param credentials by name; a secret one that is left out, or empty, stays as it is */
    record TypedProcessor(
            String name, String kind, String mode, String paysInto, Map<String, String> credentials, int version) {}

    ProcessorsView view() {
        List<PayoutAccount> own = ownAccounts();
        return new ProcessorsView(
                processors.kept().stream().map(s -> view(s, own)).toList(),
                processors.adapters().stream()
                        .map(a -> new ProcessorKind(a.kind(), a.title(), a.fields()))
                        .toList(),
                own);
    }

    private List<PayoutAccount> ownAccounts() {
        String main = business.business().account().iban();
        Stream<PayoutAccount> usual = main.isBlank()
                ? Stream.empty()
                : Stream.of(new PayoutAccount(plain(main), CreditorReference.grouped(main)));
        return Stream.concat(
                        usual,
                        accounts.all().stream()
                                .map(a -> new PayoutAccount(
                                        plain(a.iban()), a.currency() + ": " + CreditorReference.grouped(a.iban()))))
                .toList();
    }

    private static String plain(String iban) {
        return iban == null ? "" : iban.replaceAll("\\s", "");
    }

    private ProcessorView view(Stored s, List<PayoutAccount> own) {
        ProcessorAdapter adapter = processors.adapter(s.kind());
        Optional<Credentials> credentials = processors.credentials(s);
        List<String> warnings = new ArrayList<>();
        if (credentials.isEmpty()) {
            warnings.add("Its credentials cannot be read on this machine. Type them again.");
        }
        if (own.stream().noneMatch(a -> a.iban().equals(s.paysInto()))) {
            warnings.add("No account is chosen that it pays out to.");
        }
        return new ProcessorView(
                s.id(),
                s.name(),
                s.kind(),
                adapter.title(),
                s.mode(),
                s.fromSettings(),
                settings.publicUrl() + Processors.EVENTS + "/" + s.hookKey(),
                own.stream().anyMatch(a -> a.iban().equals(s.paysInto())) ? s.paysInto() : "",
                adapter.fields().stream()
                        .map(f -> new CredentialView(
                                f,
                                credentials.map(c -> !c.get(f.name()).isEmpty()).orElse(false),
                                f.secret()
                                        ? ""
                                        : credentials.map(c -> c.get(f.name())).orElse("")))
                        .toList(),
                warnings,
                s.version());
    }

    /** Reads what was typed. @throws RefusedException naming each field that is wrong, with what would be allowed */
    Stored checked(Long id, TypedProcessor typed) {
        Stored before = id == null ? null : stored(id);
        List<Problem> problems = new ArrayList<>();
        String name = Texts.name("name", typed.name(), 60, true, problems);
        ProcessorMode mode = TypedWord.read("mode", typed.mode(), ProcessorMode.class, problems);
        ProcessorAdapter adapter = before == null ? adapter(typed.kind(), problems) : processors.adapter(before.kind());
        String paysInto = account(typed.paysInto(), problems);
        if (processors.kept().stream()
                .anyMatch(s -> s.name().equalsIgnoreCase(name) && (before == null || s.id() != before.id()))) {
            problems.add(new Problem("name", name, "another is called so"));
        }
        if (before == null && processors.kept().size() >= MOST) {
            problems.add(new Problem("name", name, "there are " + MOST + " already; remove one first"));
        }
        byte[] sealed = adapter == null || before != null && before.fromSettings()
                ? null
                : sealing.seal(credentials(adapter, before, typed, problems));
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return before == null
                ? new Stored(0, name, adapter.kind(), mode, RandomText.of(KEY_BYTES), false, sealed, paysInto, 0)
                : before.with(name, mode, sealed, paysInto, typed.version());
    }

    /** One of the business's own, without blanks; empty for none. */
    private String account(String typed, List<Problem> problems) {
        String iban = plain(typed);
        if (!iban.isEmpty() && ownAccounts().stream().noneMatch(a -> a.iban().equals(iban))) {
            problems.add(new Problem("paysInto", iban, "must be one of your own accounts"));
        }
        return iban;
    }

    private ProcessorAdapter adapter(String kind, List<Problem> problems) {
        List<String> kinds =
                processors.adapters().stream().map(ProcessorAdapter::kind).toList();
        if (!kinds.contains(kind)) {
            problems.add(new Problem("kind", kind, "must be " + String.join(" or ", kinds)));
            return null;
        }
        return processors.adapter(kind);
    }

    /** What was typed over what was there. Where the address changes, no secret of the old one goes to the new. */
    private Credentials credentials(
            ProcessorAdapter adapter, Stored before, TypedProcessor typed, List<Problem> problems) {
        Credentials old = before == null
                ? new Credentials(Map.of())
                : processors.credentials(before).orElse(new Credentials(Map.of()));
        Map<String, String> given = typed.credentials() == null ? Map.of() : typed.credentials();
        Map<String, String> values = new HashMap<>();
        boolean elsewhere = false;
        for (ProcessorAdapter.CredentialField f : adapter.fields()) {
            String was = old.get(f.name());
            String value = typed(adapter, f, given.get(f.name()), problems);
            elsewhere |= !f.secret() && !value.equals(was);
            if (f.secret() && value.isEmpty() && (elsewhere || was.isEmpty())) {
                problems.add(new Problem(
                        "credentials." + f.name(),
                        "",
                        was.isEmpty()
                                ? "must be given"
                                : "must be given again, since it is sent to another address now"));
            }
            values.put(f.name(), f.secret() && value.isEmpty() ? was : value);
        }
        return new Credentials(values);
    }

    /** One as typed; a problem never repeats a secret. */
    private static String typed(
            ProcessorAdapter adapter, ProcessorAdapter.CredentialField f, String text, List<Problem> problems) {
        String field = "credentials." + f.name();
        List<Problem> own = new ArrayList<>();
        String value = Texts.name(field, text, LONGEST_CREDENTIAL, !f.secret(), own);
        String wrong = value.isEmpty() || !own.isEmpty() ? "" : adapter.wrong(f, value);
        if (!wrong.isEmpty()) {
            own.add(new Problem(field, value, wrong));
        }
        own.forEach(p -> problems.add(f.secret() ? new Problem(p.field(), "", p.message()) : p));
        return value;
    }

    private Stored stored(long id) {
        return processors.kept(id).orElseThrow(() -> new NotFoundException("There is no such card processor."));
    }

    /** Keeps what {@link #checked} read. @throws ConflictException if another window changed it first */
    @Transactional
    public void keep(Stored checked) {
        if (checked.id() == 0) {
            repository.insert(checked);
        } else if (!repository.update(checked)) {
            throw new ConflictException("This card processor was changed in another window. Look at it again.");
        }
        publisher.publishEvent(new Processors.Switched(checked.id(), checked.mode()));
        happenings.tell(null, null, "Card processor " + checked.name() + ": " + words(checked.mode()));
    }

    /** Chooses the account that one pays out to. @throws RefusedException if it is none of the business's */
    @Transactional
    public void payInto(long id, String iban) {
        List<Problem> problems = new ArrayList<>();
        String account = account(iban, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Stored s = stored(id);
        keep(s.with(s.name(), s.mode(), s.sealed(), account, s.version()));
    }

    private static String words(ProcessorMode mode) {
        return switch (mode) {
            case OFF -> "switched off";
            case TEST -> "being tested";
            case ON -> "on";
        };
    }

    /** Whether one can be removed. @throws RefusedException if it stands in the settings file */
    void removable(long id) {
        if (stored(id).fromSettings()) {
            throw new RefusedException("id", "" + id, "it stands in the settings file; switch it off instead");
        }
    }

    /** Removes one that never had an order. @throws ConflictException if it had, or was changed first */
    @Transactional
    public void remove(long id, int version) {
        Stored gone = stored(id);
        try {
            if (!repository.delete(id, version)) {
                throw new ConflictException("This card processor was changed in another window. Look at it again.");
            }
        } catch (DataIntegrityViolationException e) {
            throw new ConflictException(
                    "Payments were begun at " + gone.name() + ", so it stays in the books. Switch it off instead.");
        }
        happenings.tell(null, null, "Card processor " + gone.name() + " removed");
    }

    /** What came of asking one. @param ok whether it answers, and knows the key */
    record ProcessorTrial(boolean ok, String words) {}

    /** Asks it about an order that nobody opened: nothing is changed anywhere. */
    ProcessorTrial tryIt(long id) {
        Stored stored = stored(id);
        try {
            processors.connect(id, true).ask("no-order-of-ours");
            return new ProcessorTrial(true, stored.name() + " answers and knows your key.");
        } catch (CardProcessor.KeyUnknown e) {
            return new ProcessorTrial(false, stored.name() + " answers, but it does not know your key.");
        } catch (CardProcessor.NoAnswer e) {
            return new ProcessorTrial(false, stored.name() + " does not answer at its address.");
        }
    }
}
