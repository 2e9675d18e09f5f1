package quill.server.business;

import com.ibm.icu.text.DecimalFormatSymbols;
import com.ibm.icu.util.TimeZone;
import com.ibm.icu.util.ULocale;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.DecimalMark;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;

/** The business and its taxes. */
@Service
public class BusinessService {
    private final BusinessRepository repository;
    private final BusinessClock clock;

    BusinessService(BusinessRepository repository, BusinessClock clock) {
        this.repository = repository;
        this.clock = clock;
    }

    @EventListener(ApplicationStartedEvent.class)
    void takeZone() {
        repository.find().ifPresent(b -> clock.setZone(ZoneId.of(b.zone())));
    }

    /** The business. @throws NotFoundException before the first-run page was filled in */
    public Business business() {
        return repository.find().orElseThrow(() -> new NotFoundException("The business is not set up yet."));
    }

    /** The business, or empty before the first run. */
    public Optional<Business> find() {
        return repository.find();
    }

    /** Sets the business up, once. */
    @Transactional
    public void setUp(Business business) {
        if (repository.find().isPresent()) {
            throw new ConflictException("The business is set up already; sign in.");
        }
        Business checked = business.checked();
        repository.insert(checked);
        repository.changeMark(usualMark(checked));
        clock.setZone(ZoneId.of(checked.zone()));
    }

    /** Changes it. @throws ConflictException if another window changed it first, or documents hold the currency */
    @Transactional
    public Business change(Business business) {
        Business checked = business.checked();
        if (!checked.currency().equals(business().currency())) {
            throw new RefusedException(
                    "currency", checked.currency(), "stays " + business().currency() + ": the books are kept in it");
        }
        if (repository.update(checked) != 1) {
            throw new ConflictException("These settings were changed in another window. Look at them again.");
        }
        clock.setZone(ZoneId.of(checked.zone()));
        return business();
    }

    /** The decimal mark that is typed here, {@code .} or {@code ,}. */
    public String mark() {
        return repository.mark();
    }

    /** Changes it for what is typed from now on; drafts keep theirs. */
    @Transactional
    public void changeMark(String mark) {
        if (!DecimalMark.of(mark).sign().equals(mark)) {
            throw new RefusedException("mark", mark, "must be a point or a comma");
        }
        repository.changeMark(mark);
    }

    /** As it is written where the business is: its country, or else that of its time zone (Unicode CLDR). */
    private static String usualMark(Business b) {
        String country = b.country().isEmpty() ? TimeZone.getRegion(b.zone()) : b.country();
        ULocale there = ULocale.addLikelySubtags(new ULocale("und", country));
        return DecimalMark.of(DecimalFormatSymbols.getInstance(there).getDecimalSeparatorString())
                .sign();
    }

    /** Its taxes by id, in their order, retired ones too; where it is not registered, the one that charges nothing. */
    public Map<String, Tax> taxes() {
        Map<String, Tax> taxes = new LinkedHashMap<>();
        if (business().registered()) {
            repository.taxes().forEach(t -> taxes.put(t.id(), t));
        } else {
            taxes.put("none", Tax.outsideScope());
        }
        return taxes;
    }

    /** The names of all taxes by their ids, of those that are no longer offered too. */
    public Map<String, String> taxNames() {
        return repository.taxes().stream().collect(Collectors.toMap(Tax::id, Tax::name));
    }

    /** Taxes that are no longer offered. */
    public Set<String> retiredTaxes() {
        return repository.retired();
    }

    /** A tax as it is typed. */
    public record TypedTax(String name, String rate, String category, Boolean compound, String reason) {
        /** Not compound unless it says so. */
        public TypedTax {
            compound = Boolean.TRUE.equals(compound);
        }

        TypedTax plain(DecimalMark mark) {
            return new TypedTax(name, mark.plain(rate), category, compound, reason);
        }
    }

    /** Adds a tax; one that exists is never changed, since issued documents name it. */
    @Transactional
    public Tax addTax(TypedTax typed) {
        List<Problem> problems = new ArrayList<>();
        String name = Texts.name("name", typed.name(), 60, true, problems);
        String reason = Texts.name("reason", typed.reason(), 200, false, problems);
        TaxCategory code = category(typed.category(), problems);
        // Only S has a rate, so an empty field is no slip with the others.
        boolean free = code != null
                && code != TaxCategory.S
                && (typed.rate() == null || typed.rate().isBlank());
        Percent percent = free ? Percent.of("0") : TypedNumber.percent("rate", typed.rate(), problems);
        if (code == TaxCategory.S && percent != null && percent.rate().signum() == 0) {
            problems.add(new Problem("rate", typed.rate(), "must be above 0%; for a zero rate choose category Z"));
        }
        if (repository.taxes().stream().anyMatch(t -> t.name().equalsIgnoreCase(name))) {
            problems.add(new Problem("name", name, "is taken by another tax"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Tax tax = new Tax(
                "tax-" + UUID.randomUUID().toString().substring(0, 8), name, percent, code, typed.compound(), reason);
        repository.insertTax(tax);
        return tax;
    }

    private static TaxCategory category(String code, List<Problem> problems) {
        try {
            return TaxCategory.valueOf(code);
        } catch (IllegalArgumentException | NullPointerException e) {
            problems.add(new Problem("category", code, "must be one of S, Z, E, AE, K, G, O"));
            return null;
        }
    }

    /** Offers a tax no longer, or again. Drafts and documents that name it keep it. */
    @Transactional
    public void retireTax(String id, boolean retired) {
        if (repository.retire(id, retired) != 1) {
            throw new NotFoundException("There is no tax " + id + ".");
        }
    }
}
