package quill.server.documents;

import java.util.ArrayList;
import java.util.List;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.BusinessClock;

/** The numbers that documents get next, over HTTP. */
@RestController
@RequestMapping("/api/numbers")
class NumbersController {
    private static final int HIGHEST = 999_999;
    private static final List<DocumentKind> KINDS =
            List.of(DocumentKind.INVOICE, DocumentKind.CREDIT_NOTE, DocumentKind.QUOTE);
    private final NumberSeries numbers;
    private final BusinessClock clock;
    private final TransactionTemplate transaction;

    NumbersController(NumberSeries numbers, BusinessClock clock, TransactionTemplate transaction) {
        this.numbers = numbers;
        this.clock = clock;
        this.transaction = transaction;
    }

    /** @param next the number that the next document of this kind gets @param begun whether any was given out */
    record NextNumber(DocumentKind kind, String next, boolean begun) {}

    /** @param next the sequence with which a series begins, from 1 */
    record FirstNumber(String kind, int next) {
        /** No kind is none of them. */
        FirstNumber {
            kind = kind == null ? "" : kind;
        }
    }

    @GetMapping
    List<NextNumber> next() {
        return KINDS.stream()
                .map(kind -> {
                    int last = numbers.last(kind, numbers.pattern(kind), clock.today());
                    return new NextNumber(
                            kind,
                            numbers.pattern(kind).format(clock.today().getYear(), last + 1),
                            numbers.isBegun(kind, numbers.pattern(kind), clock.today()));
                })
                .toList();
    }

    /** Says with which number a series begins, for a business that wrote others before. */
    @PutMapping
    List<NextNumber> begin(@RequestBody FirstNumber first) {
        List<Problem> problems = new ArrayList<>();
        DocumentKind kind = KINDS.stream()
                .filter(k -> k.word().equals(first.kind()))
                .findFirst()
                .orElse(null);
        if (kind == null) {
            problems.add(new Problem(
                    "kind",
                    first.kind(),
                    "must be one of " + KINDS.stream().map(DocumentKind::word).toList()));
        }
        if (first.next() < 1 || first.next() > HIGHEST) {
            problems.add(new Problem("next", String.valueOf(first.next()), "must be from 1 to " + HIGHEST));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        transaction.executeWithoutResult(s -> numbers.begin(kind, numbers.pattern(kind), clock.today(), first.next()));
        return next();
    }
}
