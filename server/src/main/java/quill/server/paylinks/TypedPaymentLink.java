package quill.server.paylinks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.pay.LinkAmount;
import quill.core.pay.SecureAddress;
import quill.server.common.Texts;
import quill.server.common.TypedMark;

/**
 * A payment link as typed.
 *
 * @param taxes keys of taxes that are inside the amount
 * @param endsOn its last day, as people write days; empty for none
 * @param version under which it was last read; 0 for a new one
 */
public record TypedPaymentLink(
        String title,
        @Schema(nullable = true) String description,
        LinkAmount.TypedLinkAmount asks,
        List<String> taxes,
        boolean once,
        @Schema(nullable = true) String endsOn,
        @Schema(nullable = true) String terms,
        List<PaymentLink.LinkField> fields,
        PaymentLink.AfterPaying after,
        @Schema(nullable = true) ClientId clientId,
        boolean hold,
        int version) {
    private static final int MOST_FIELDS = 8;

    /** What is left out is none. */
    public TypedPaymentLink {
        taxes = taxes == null ? List.of() : taxes;
        fields = fields == null ? List.of() : fields;
        after = after == null ? new PaymentLink.AfterPaying("", "") : after;
        asks = asks == null ? new LinkAmount.TypedLinkAmount("", false, "", "", "") : asks;
    }

    /** @param offered keys of the taxes that there are @throws RefusedException naming what is wrong */
    PaymentLink read(LocalDate today, Set<String> offered) {
        List<Problem> problems = new ArrayList<>();
        String name = Texts.name("title", title, 120, true, problems);
        String what = Texts.text("description", description, 2000, false, problems);
        LinkAmount amount = LinkAmount.read(plain(asks), problems);
        for (String tax : taxes) {
            if (!offered.contains(tax)) {
                problems.add(new Problem("taxes", tax, "must be among your taxes: " + offered));
            }
        }
        LocalDate end = endsOn == null || endsOn.isBlank()
                ? null
                : LooseDate.read("endsOn", endsOn, today, LooseDate.Lean.COMING, problems);
        if (end != null && end.isBefore(today)) {
            problems.add(new Problem("endsOn", endsOn, "must be today, " + Texts.day(today) + ", or later"));
        }
        String conditions = Texts.text("terms", terms, 4000, false, problems);
        List<PaymentLink.LinkField> own = own(problems);
        String thanks = Texts.text("after.thanks", after.thanks(), 1000, false, problems);
        String onward = SecureAddress.read("after.onward", after.onward(), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new PaymentLink(
                0,
                "",
                name,
                what,
                PaymentLink.LinkAsks.of(amount),
                taxes.stream().distinct().toList(),
                new PaymentLink.LinkRules(once, end, conditions, clientId, hold, true),
                own,
                new PaymentLink.AfterPaying(thanks, onward),
                false,
                version,
                today);
    }

    private static LinkAmount.TypedLinkAmount plain(LinkAmount.TypedLinkAmount a) {
        return new LinkAmount.TypedLinkAmount(
                a.currency(),
                a.chosen(),
                TypedMark.plain(a.amount()),
                TypedMark.plain(a.least()),
                TypedMark.plain(a.most()));
    }

    private List<PaymentLink.LinkField> own(List<Problem> problems) {
        List<PaymentLink.LinkField> own = new ArrayList<>();
        for (int i = 0; i < fields.size(); i++) {
            String label = Texts.name("fields[" + i + "].label", fields.get(i).label(), 80, true, problems);
            own.add(new PaymentLink.LinkField(label, fields.get(i).needed()));
        }
        if (own.size() > MOST_FIELDS) {
            problems.add(new Problem("fields", String.valueOf(own.size()), "at most " + MOST_FIELDS + " fields"));
        }
        if (own.stream()
                        .map(PaymentLink.LinkField::label)
                        .collect(Collectors.toSet())
                        .size()
                != own.size()) {
            problems.add(new Problem("fields", "", "each field needs a name of its own"));
        }
        return own;
    }
}
