package quill.server.letters;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.letter.FieldSet;
import quill.core.letter.LetterKind;
import quill.core.letter.ReadyMade;
import quill.core.letter.Wording;
import quill.server.audit.Happenings;
import quill.server.business.DocumentSettings;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Texts;

/** How the business words its letters: its own wording, or ours until there is one. */
@Service
public class Wordings {
    private final WordingRepository repository;
    private final DocumentSettings documents;
    private final Happenings happenings;
    private final BusinessClock clock;

    Wordings(WordingRepository repository, DocumentSettings documents, Happenings happenings, BusinessClock clock) {
        this.repository = repository;
        this.documents = documents;
        this.happenings = happenings;
        this.clock = clock;
    }

    /**
     * A wording as it is kept.
     *
     * @param version 0 before anything was kept
     * @param own whether the business worded it, not we
     * @param since when it did; null where it did not
     */
    public record Kept(Wording wording, int version, boolean own, LocalDate since) {}

    /** The fields of a letter, with those that the business has on its documents. */
    public FieldSet fields(LetterKind kind) {
        return FieldSet.of(kind, documents.setting().labels());
    }

    /**
     * What a letter says from now on.
     *
     * @param payer whether it goes to a payer apart from the client; without a wording for that, the client's serves
     */
    public Wording now(LetterKind kind, boolean payer) {
        Kept kept = kept(kind, payer);
        return payer && !kept.own() ? kept(kind, false).wording() : kept.wording();
    }

    /** As it is kept; where the business did not word it, in ours. */
    public Kept kept(LetterKind kind, boolean payer) {
        return repository
                .latest(kind, payer)
                .map(s -> s.wording() == null
                        ? new Kept(ours(kind), s.version(), false, null)
                        : new Kept(s.wording(), s.version(), true, s.madeOn()))
                .orElseGet(() -> new Kept(ours(kind), 0, false, null));
    }

    /** Which letters the business words itself, and since when. */
    public List<Own> own() {
        return repository.latest().stream()
                .filter(s -> s.wording() != null)
                .map(s -> new Own(s.kind(), s.payer(), s.madeOn()))
                .toList();
    }

    /** A letter that the business words itself. */
    public record Own(LetterKind kind, boolean payer, LocalDate since) {}

    private static Wording ours(LetterKind kind) {
        return ReadyMade.of(kind, ReadyMade.Tone.PLAIN);
    }

    /** Reads a wording as typed. @throws RefusedException with everything that is wrong with it */
    public Wording read(LetterKind kind, String subject, String body) {
        List<Problem> problems = new ArrayList<>();
        Wording wording = Wording.read(subject, body, fields(kind), problems);
        if (kind.group() == LetterKind.Group.UNPAID) {
            Texts.printable("body", body, problems); // A reminder is printed too.
        }
        if (body != null && !Texts.printable(body.replace("\r", "")).equals(body.replace("\r", ""))) {
            problems.add(new Problem("body", "", "has a control character in it; type that place again"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return wording;
    }

    /**
     * Words a letter from now on; what was sent before stays as it was.
     *
     * @throws RefusedException with everything that is wrong with it
     * @throws ConflictException if another window worded it first
     */
    @Transactional
    public Kept change(LetterKind kind, boolean payer, String subject, String body, int version) {
        return add(
                kind,
                payer,
                read(kind, subject, body),
                version,
                "The letter “" + kind.title() + "” says something else");
    }

    /** Goes back to ours, or for a payer to what the client gets. @throws ConflictException as for a change */
    @Transactional
    public Kept backToOurs(LetterKind kind, boolean payer, int version) {
        return add(kind, payer, null, version, "The letter “" + kind.title() + "” is ours again");
    }

    private Kept add(LetterKind kind, boolean payer, Wording wording, int version, String what) {
        var next = new WordingRepository.Stored(kind, payer, version + 1, wording, clock.today());
        if (!repository.add(next, Happenings.actor(), clock.instant())) {
            throw new ConflictException("This letter was changed in another window. Look at it again.");
        }
        happenings.tell(null, null, what + (payer ? ", for who pays for a client" : ""));
        return kept(kind, payer);
    }
}
