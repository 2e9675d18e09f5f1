package quill.server.quotes;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import org.springframework.stereotype.Component;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.issued.IssuedDocument;
import quill.core.quote.Choices;
import quill.core.schedule.Installment;
import quill.server.common.Amount;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.documents.DraftReckoner;
import quill.server.documents.Fixing;

/** Says what an issued quote comes to with whatever is chosen of it, by the taxes and rates of its day. */
@Component
class QuoteChoosing {
    private final QuoteRepository repository;
    private final Documents documents;
    private final DraftReckoner reckoner;
    private final Fixing fixing;

    QuoteChoosing(QuoteRepository repository, Documents documents, DraftReckoner reckoner, Fixing fixing) {
        this.repository = repository;
        this.documents = documents;
        this.reckoner = reckoner;
        this.fixing = fixing;
    }

    /** A line that can be chosen. @param place by which it is named */
    public record QuoteOption(int place, String description, Amount net, boolean ticked) {}

    /**
     * A quote with a choice.
     *
     * @param places of the document's lines in what was offered
     * @param schedule by which days its installments would fall due
     */
    record Chosen(
            QuoteRepository.Terms terms,
            List<Integer> ticked,
            IssuedDocument document,
            List<Integer> places,
            List<QuoteOption> options,
            List<Installment> schedule) {}

    /** With what was accepted of it; until then with what it begins with. */
    Chosen asItStands(Document quote) {
        QuoteRepository.Terms terms = repository.terms(quote.id());
        return choose(
                quote,
                terms,
                repository
                        .answer(quote.id())
                        .filter(QuoteAnswer::accepted)
                        .map(QuoteAnswer::ticked)
                        .orElseGet(() -> Choices.ticked(terms.offered())));
    }

    /** @throws RefusedException naming {@code ticked}, for a line that cannot be chosen, or where nothing is left */
    Chosen choose(Document quote, Collection<Integer> ticked) {
        return choose(quote, repository.terms(quote.id()), ticked);
    }

    private Chosen choose(Document quote, QuoteRepository.Terms terms, Collection<Integer> chosen) {
        TypedDraft offered = Choices.choose(terms.offered(), chosen);
        DraftReckoner.Reckoned reckoned = reckoner.toIssue(offered, quote.issuedOn());
        if (reckoned.totals() == null || !reckoned.totals().total().isPositive()) {
            throw new RefusedException("ticked", chosen, "leaves nothing to accept");
        }
        IssuedDocument document = fixing.again(documents.asFirstIssued(quote), reckoned);
        List<Integer> ticked = List.copyOf(new TreeSet<>(chosen));
        List<Integer> places = reckoned.read().places();
        return new Chosen(
                terms, ticked, document, places, options(offered, ticked, document, reckoned), reckoned.schedule());
    }

    private static List<QuoteOption> options(
            TypedDraft offered, List<Integer> ticked, IssuedDocument document, DraftReckoner.Reckoned reckoned) {
        Map<Integer, Amount> nets = new TreeMap<>();
        reckoned.left().forEach(l -> nets.put(l.place(), l.net()));
        List<Integer> places = reckoned.read().places();
        for (int i = 0; i < places.size(); i++) {
            nets.put(places.get(i), Amount.of(document.lines().get(i).net()));
        }
        return Choices.optional(offered).stream()
                .filter(nets::containsKey)
                .map(place -> new QuoteOption(
                        place,
                        offered.lines().get(place).description().strip(),
                        nets.get(place),
                        ticked.contains(place)))
                .toList();
    }
}
