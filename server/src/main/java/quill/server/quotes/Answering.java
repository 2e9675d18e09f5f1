package quill.server.quotes;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Hashes;
import quill.server.common.Json;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;

/** A quote is accepted or declined: on its page, or noted by hand. It has one answer, whatever happens at once. */
@Service
public class Answering {
    private static final int MOST_NAME = 200;
    private static final int MOST_REASON = 1000;

    private final QuotesService quotes;
    private final QuoteChoosing choosing;
    private final QuoteRepository repository;
    private final Documents documents;
    private final Json json;
    private final AfterAccepting after;
    private final QuoteNews news;
    private final BusinessClock clock;

    Answering(
            QuotesService quotes,
            QuoteChoosing choosing,
            QuoteRepository repository,
            Documents documents,
            Json json,
            AfterAccepting after,
            QuoteNews news,
            BusinessClock clock) {
        this.quotes = quotes;
        this.choosing = choosing;
        this.repository = repository;
        this.documents = documents;
        this.json = json;
        this.after = after;
        this.news = news;
        this.clock = clock;
    }

    /**
     * How somebody accepts.
     *
     * @param name typed as a signature; by hand, who said so and how
     * @param ticked lines that are chosen, by their places
     * @param seen the seal of what was on screen; null by hand
     */
    public record Acceptance(String name, List<Integer> ticked, String seen) {
        /** Nothing ticked is nothing chosen. */
        public Acceptance {
            ticked = ticked == null
                    ? List.of()
                    : ticked.stream().filter(Objects::nonNull).toList();
        }
    }

    /** A hash of all that is accepted: the text of the document with what is chosen, its terms, and until when it holds. */
    String sealOf(Document quote, QuoteChoosing.Chosen chosen) {
        return Hashes.of(
                json.write(documents.printed(quote.kind(), chosen.document()).forClient()) + "\n"
                        + chosen.terms().validUntil() + "\n" + chosen.terms().conditions());
    }

    /**
     * Accepts on the quote's page.
     *
     * @param address internet address of whoever did
     * @throws ConflictException where it was answered already, has run out, or says something else by now than what was seen
     * @throws RefusedException naming {@code name} or {@code ticked}
     */
    @Transactional
    public Document accept(Document found, Acceptance a, String address) {
        return accept(found, a, address, false);
    }

    /** The same noted by the business. */
    @Transactional
    public Document acceptByHand(Document found, Acceptance a) {
        return accept(found, a, "", true);
    }

    private Document accept(Document found, Acceptance a, String address, boolean byHand) {
        Document quote = lock(found);
        String name = name(a.name(), byHand);
        QuoteChoosing.Chosen chosen = choosing.choose(quote, a.ticked());
        LocalDate until = chosen.terms().validUntil();
        String seal = sealOf(quote, chosen);
        if (!byHand && !seal.equals(a.seen())) {
            throw new ConflictException(
                    "This quote was changed, or something else is ticked, than what you see. Look at it again;"
                            + " nothing was accepted.");
        }
        if (!byHand && until.isBefore(clock.today())) {
            throw new ConflictException("This quote held until " + Texts.day(until)
                    + ". Please ask " + chosen.document().from().name() + " ("
                    + chosen.document().from().email() + ") for a new one.");
        }
        if (!documents.answer(quote, DocumentState.ACCEPTED, chosen.document())) {
            throw answered(quotes.quote(quote.id()));
        }
        repository.answer(
                quote.id(),
                new QuoteAnswer(
                        true, byHand, name, clock.today(), clock.instant(), address, "", chosen.ticked(), seal));
        Document accepted = quotes.quote(quote.id());
        after.accepted(accepted, chosen, name, byHand);
        return accepted;
    }

    /** Declines on the quote's page. @param why may be empty */
    @Transactional
    public Document decline(Document found, String why, String address) {
        return decline(found, found.clientName(), why, address, false);
    }

    /** The same noted by the business. @param name who said so and how */
    @Transactional
    public Document declineByHand(Document found, String name, String why) {
        return decline(found, name(name, true), why, "", true);
    }

    private Document decline(Document found, String name, String why, String address, boolean byHand) {
        Document quote = lock(found);
        List<Problem> problems = new ArrayList<>();
        String reason = Texts.text("reason", why, MOST_REASON, false, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (!documents.answer(quote, DocumentState.DECLINED, null)) {
            throw answered(quotes.quote(quote.id()));
        }
        repository.answer(
                quote.id(),
                new QuoteAnswer(false, byHand, name, clock.today(), clock.instant(), address, reason, List.of(), null));
        Document declined = quotes.quote(quote.id());
        news.declined(declined, name, reason, byHand);
        return declined;
    }

    /** A question before the answer. */
    @Transactional
    public void ask(Document found, String text) {
        Document quote = lock(found);
        List<Problem> problems = new ArrayList<>();
        String asked = Texts.text("text", text, 2000, true, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        repository.ask(quote.id(), clock.today(), clock.instant(), asked);
        news.asked(quote, asked);
    }

    /** Somebody has answered a question. */
    @Transactional
    public void seeTo(long questionId) {
        if (!repository.seeTo(questionId, clock.today())) {
            throw new ConflictException("Somebody has seen to this question already.");
        }
    }

    private Document lock(Document found) {
        Document quote = quotes.lock(found.id());
        if (quote.state() != DocumentState.OPEN) {
            throw answered(quote);
        }
        return quote;
    }

    private ConflictException answered(Document quote) {
        Optional<QuoteAnswer> answer = repository.answer(quote.id());
        return new ConflictException(answer.map(a -> "This quote was " + (a.accepted() ? "accepted" : "declined")
                        + " on " + Texts.day(a.on()) + " by " + a.name() + ".")
                .orElse("This quote is open no more; a later one may have taken its place. Nothing was accepted."));
    }

    private static String name(String typed, boolean byHand) {
        List<Problem> problems = new ArrayList<>();
        String name = Texts.name("name", typed, MOST_NAME, true, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems.stream()
                    .map(p -> byHand && p.value().isEmpty()
                            ? new Problem(p.field(), "", "say who accepted it, and how: on the telephone, on paper")
                            : p)
                    .toList());
        }
        return name;
    }
}
