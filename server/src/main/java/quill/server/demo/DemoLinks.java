package quill.server.demo;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.pay.LinkAmount.TypedLinkAmount;
import quill.server.cardorders.CardOrders;
import quill.server.paylinks.LinkPaying;
import quill.server.paylinks.LinkPaying.PayLink;
import quill.server.paylinks.PaymentLink;
import quill.server.paylinks.PaymentLink.AfterPaying;
import quill.server.paylinks.PaymentLink.LinkField;
import quill.server.paylinks.PaymentLinks;
import quill.server.paylinks.TypedPaymentLink;

/** Payment links of the demo, and who pays through them. */
@Component
class DemoLinks {
    private static final String GOOD_CARD = "9901000000000019";
    private final PaymentLinks links;
    private final LinkPaying paying;
    private final CardOrders orders;
    private final StandInForms forms;
    private String evening;

    DemoLinks(PaymentLinks links, LinkPaying paying, CardOrders orders, StandInForms forms) {
        this.links = links;
        this.paying = paying;
        this.orders = orders;
        this.forms = forms;
    }

    /** As the owner. @param tax the usual one */
    void make(String tax) {
        evening = links.make(
                        "demo-link-evening",
                        new TypedPaymentLink(
                                "Workshop evening: how a piano is tuned",
                                "Thursday, 15 April 2027, seven o'clock, in the workshop. For up to twelve people; bring"
                                        + " warm socks.",
                                new TypedLinkAmount("EUR", false, "25.00", "", ""),
                                List.of(tax),
                                false,
                                "2027-04-14",
                                "Places are given back free of charge until the day before.",
                                List.of(
                                        new LinkField("Your instrument", true),
                                        new LinkField("Who comes along", false)),
                                new AfterPaying("See you in the workshop. The door is the green one in the yard.", ""),
                                null,
                                false,
                                0))
                .token();
        links.make(
                "demo-link-fund",
                new TypedPaymentLink(
                        "For the youth instrument fund",
                        "It lends pianos to children whose families cannot hire one.",
                        new TypedLinkAmount("EUR", true, "", "5.00", "500.00"),
                        List.of(),
                        false,
                        "",
                        "",
                        List.of(),
                        new AfterPaying("Thank you very much.", ""),
                        null,
                        false,
                        0));
        PaymentLink old = links.make(
                "demo-link-old",
                new TypedPaymentLink(
                        "Autumn tuning round, villages",
                        "",
                        new TypedLinkAmount("EUR", false, "110.00", "", ""),
                        List.of(tax),
                        false,
                        "",
                        "",
                        List.of(),
                        null,
                        null,
                        false,
                        0));
        links.close(old.id(), old.version(), true);
    }

    /** As somebody who has the link. */
    void pay(String key, String name, String instrument) {
        String payAt = paying.begin(
                evening,
                new PayLink(
                        key,
                        "25.00",
                        "EUR",
                        name,
                        name.toLowerCase().replace(' ', '.') + "@post.example",
                        Map.of("Your instrument", instrument),
                        true,
                        null));
        forms.send(payAt, Map.of("number", GOOD_CARD, "expiry", "09/29"));
        orders.askAboutAll(() -> false);
    }
}
