package quill.server.formats;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.schedule.TypedTerm;

/** Drafts made up by chance that EN 16931 can carry: every category, both places of tax, two currencies. */
record MadeUp(Map<String, String> taxes, ClientId plain, ClientId abroad, ClientId exempt, LocalDate today) {
    TypedDraft next(Random random, int number) {
        List<String> kinds = switch (number % 10) {
            case 6 -> List.of("reverse");
            case 7 -> List.of("union");
            case 8 -> List.of("export", "zero");
            case 9 -> List.of("out");
            default -> List.of("high", "low", "odd", "zero", "free");
        };
        ClientId client = number % 10 == 6 || number % 10 == 7 ? abroad : number % 11 == 0 ? exempt : plain;
        List<TypedLine> lines = new ArrayList<>();
        for (int n = 1 + random.nextInt(6); n > 0; n--) {
            lines.add(line(random, pick(random, kinds)));
        }
        List<TypedExtra> discounts = random.nextInt(3) == 0
                ? List.of(new TypedExtra("Loyal", random.nextBoolean() ? "7.5%" : "3.33", List.of()))
                : List.of();
        List<TypedExtra> charges = random.nextInt(3) == 0
                ? List.of(new TypedExtra("Delivery", "12.40", List.of(taxes.get(pick(random, kinds)))))
                : List.of();
        boolean pounds = number % 13 == 0;
        return TypedDraft.in(pounds ? "GBP" : "EUR")
                .client(client)
                .subject("work <&> " + number)
                .reference(random.nextBoolean() ? "PO 7" : "")
                .project(random.nextBoolean() ? "Project 9" : "")
                .supplyDate(today.toString())
                .supplyEnd(number % 7 == 0 ? today.plusDays(9).toString() : "")
                .taxInside(number % 4 == 1)
                .cash(number % 5 == 0)
                .lines(lines)
                .discounts(discounts)
                .charges(charges)
                .schedule(
                        number % 2 == 0
                                ? List.of(new TypedTerm(true, "40%", "0"), new TypedTerm(false, "rest", "30"))
                                : List.of(new TypedTerm(false, "rest", "14")))
                .notes("Thank you\n\u0007twice")
                .terms("Goods stay mine until paid")
                .memo("memo")
                .fields(Map.of("Piano", "No. 7"))
                .build();
    }

    private static String pick(Random random, List<String> kinds) {
        return kinds.get(random.nextInt(kinds.size()));
    }

    private TypedLine line(Random random, String kind) {
        String quantity =
                BigDecimal.valueOf(1 + random.nextInt(3_000), random.nextInt(4)).toPlainString();
        String sign = random.nextInt(15) == 0 ? "-" : "";
        String price =
                BigDecimal.valueOf(random.nextInt(60_000), random.nextInt(4)).toPlainString();
        String discount = sign.isEmpty() && random.nextInt(3) == 0 ? random.nextInt(90) + ".5%" : "";
        return new TypedLine(
                "Work & parts",
                sign + quantity,
                random.nextBoolean() ? "h" : "visits",
                price,
                discount,
                List.of(taxes.get(kind)));
    }
}
