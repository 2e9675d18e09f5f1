package quill.server.ways;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.ledger.OnTop;
import quill.core.money.Amounts;
import quill.core.pay.Surcharge;
import quill.core.pay.Surcharge.TypedSurcharge;
import quill.core.pay.Tips;
import quill.core.pay.WayToPay;
import quill.core.tax.Tax;
import quill.server.audit.Happenings;
import quill.server.business.BusinessService;
import quill.server.common.ConflictException;
import quill.server.common.Shown;
import quill.server.common.Texts;

/** What payers give on top: tips, where they are offered, and what the business asks for paying by card. */
@Service
public class OnTopService {
    private final OnTopRepository repository;
    private final BusinessService business;
    private final Happenings happenings;

    OnTopService(OnTopRepository repository, BusinessService business, Happenings happenings) {
        this.repository = repository;
        this.business = business;
        this.happenings = happenings;
    }

    /**
     * As typed.
     *
     * @param surcharge whether one is asked
     * @param tax which it bears; empty for none
     * @param tips whether they are offered
     * @param given which, such as {@code 5% 10%}
     * @param free whether payers can type their own
     */
    public record OnTopSetting(
            boolean surcharge,
            String percent,
            String fixed,
            String most,
            String tax,
            boolean tips,
            String given,
            boolean free,
            int version) {}

    /** As it is kept, or usual: neither. */
    public OnTopSetting setting() {
        return repository.find().orElse(new OnTopSetting(false, "", "", "", "", false, "5% 10%", true, 0));
    }

    /** @throws RefusedException naming each field that is wrong @throws ConflictException if another window changed it first */
    @Transactional
    public OnTopSetting change(OnTopSetting typed) {
        List<Problem> problems = new ArrayList<>();
        OnTopSetting plain = new OnTopSetting(
                typed.surcharge(),
                Texts.name("percent", typed.percent(), 20, false, problems),
                Texts.name("fixed", typed.fixed(), 20, false, problems),
                Texts.name("most", typed.most(), 20, false, problems),
                typed.tax() == null ? "" : typed.tax(),
                typed.tips(),
                Texts.name("tips", typed.given(), 200, false, problems),
                typed.free(),
                typed.version());
        if (!plain.tax().isEmpty() && !business.taxes().containsKey(plain.tax())) {
            problems.add(new Problem("tax", plain.tax(), "must be one of your taxes, or empty for none"));
        }
        if (problems.isEmpty()) {
            read(plain, problems);
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (!repository.keep(plain)) {
            throw new ConflictException("This was changed in another window. Look at it again.");
        }
        happenings.tell(
                null,
                null,
                (plain.surcharge() ? "A surcharge is asked" : "No surcharge is asked")
                        + (plain.tips() ? "; tips are offered" : "; no tips are offered"));
        return setting();
    }

    private record Read(Surcharge surcharge, Tips tips) {}

    /** @return with nulls for what is off, or wrong */
    private Read read(OnTopSetting s, List<Problem> problems) {
        CurrencyUnit own = business.business().currencyUnit();
        Map<String, Tax> taxes = business.taxes();
        return new Read(
                s.surcharge()
                        ? Surcharge.read(
                                new TypedSurcharge(s.percent(), s.fixed(), s.most()), own, taxes.get(s.tax()), problems)
                        : null,
                s.tips() ? Tips.read(s.given(), s.free(), own, problems) : null);
    }

    private Read now() {
        return read(setting(), new ArrayList<>());
    }

    /**
     * What is on top of a sum.
     *
     * @param way by which it is paid; null for not chosen: by card, where that costs something
     * @param tip as typed; empty for none
     * @param problems gets those of {@code tip}
     */
    public OnTop on(Money sum, WayToPay way, String tip, List<Problem> problems) {
        return on(now(), sum, way, tip, problems);
    }

    private static OnTop on(Read now, Money sum, WayToPay way, String tip, List<Problem> problems) {
        OnTop charged = now.surcharge() == null || way != null && !way.isCard()
                ? OnTop.nothing(sum.getCurrencyUnit())
                : now.surcharge().on(sum);
        if (tip == null || tip.isBlank()) {
            return charged;
        }
        if (now.tips() == null) {
            problems.add(new Problem("tip", tip, "no tips are taken here"));
            return charged;
        }
        Money given = now.tips().given(tip, sum, problems);
        return given == null ? charged : charged.withTip(given);
    }

    /**
     * What a page says of it.
     *
     * @param charges whether paying by card costs something
     * @param top what is on top
     * @param taxName of the tax that the surcharge bears; empty for none
     * @param tips that are offered; null where none are
     * @param free whether another one can be typed
     */
    public record Offered(boolean charges, OnTop top, String taxName, List<Tips.Offered> tips, boolean free) {}

    /** What is on top of a sum, and could be. Parameters as those of {@link #on}. */
    public Offered offered(Money sum, WayToPay way, String tip, List<Problem> problems) {
        Read now = now();
        OnTop top = on(now, sum, way, tip, problems);
        Tax tax = business.taxes().get(top.taxId());
        return new Offered(
                now.surcharge() != null,
                top,
                tax == null ? "" : tax.name(),
                now.tips() == null ? null : now.tips().on(sum),
                now.tips() != null && now.tips().free());
    }

    /** What a payer chose, as its page sent it. @param total with all that is on top, as it was seen; empty where nothing is */
    public record Chosen(String way, String tip, String total) {
        /** Nothing. */
        public static final Chosen NOTHING = new Chosen("", "", "");
    }

    /** In which way alone it is paid, and what is on top. @param only null for each that is offered */
    public record Paid(WayToPay only, OnTop top) {}

    /**
     * Reads what a payer chose.
     *
     * @throws RefusedException naming {@code way} or {@code tip}
     * @throws ConflictException where the whole is not what the payer saw
     */
    public Paid paid(Money sum, Chosen chosen) {
        List<Problem> problems = new ArrayList<>();
        WayToPay way = way(chosen.way(), problems);
        OnTop top = on(sum, way, chosen.tip(), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Money whole = sum.plus(top.sum());
        String seen = chosen.total() == null || chosen.total().isEmpty() ? Amounts.plain(sum) : chosen.total();
        if (!Amounts.plain(whole).equals(seen)) {
            throw new ConflictException("With what is on top it is " + Shown.money(whole)
                    + " now. Nothing was taken. Look again before you pay.");
        }
        return new Paid(way == null && top.charged().isPositive() ? WayToPay.CARD : way, top);
    }

    private static WayToPay way(String typed, List<Problem> problems) {
        if (typed == null || typed.isEmpty()) {
            return null;
        }
        return WayToPay.online().stream()
                .filter(w -> w.name().equals(typed))
                .findFirst()
                .orElseGet(() -> {
                    problems.add(new Problem("way", typed, "must be CARD (in a wallet too), BANK_DEBIT or empty"));
                    return null;
                });
    }
}
