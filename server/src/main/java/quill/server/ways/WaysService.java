package quill.server.ways;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.pay.TypedWay;
import quill.core.pay.WayRule;
import quill.core.pay.WayToPay;
import quill.server.audit.Happenings;
import quill.server.business.BankAccounts;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.business.Rates;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.ReadOnce;
import quill.server.processor.Processors;

/**
 * In which ways something can be paid: the business's rules, and what a client or one document is limited to. Where no
 * card processor is set up, cards are not spoken of at all.
 */
@Service
public class WaysService {
    private final WayRepository repository;
    private final BusinessService business;
    private final BankAccounts accounts;
    private final Rates rates;
    private final ClientsService clients;
    private final Processors processors;
    private final Happenings happenings;
    private final BusinessClock clock;

    WaysService(
            WayRepository repository,
            BusinessService business,
            BankAccounts accounts,
            Rates rates,
            ClientsService clients,
            Processors processors,
            Happenings happenings,
            BusinessClock clock) {
        this.repository = repository;
        this.business = business;
        this.accounts = accounts;
        this.rates = rates;
        this.clients = clients;
        this.processors = processors;
        this.happenings = happenings;
        this.clock = clock;
    }

    /** The rules as typed. @param version 0 before they were first kept */
    public record WaySetting(List<TypedWay> ways, int version) {}

    /**
     * One way for one sum.
     *
     * @param wallet whether it shows only where the payer's device has it
     * @param on whether the business offers it at all
     * @param missing which rule removed it; empty where it is offered
     * @param test whether a card is taken for it on trial, since its processor is being tested
     * @param cost what taking the sum this way costs the business
     * @param arrivesOn when money that is paid today is there
     */
    public record WayOffer(
            WayToPay way,
            String words,
            boolean wallet,
            boolean on,
            boolean offered,
            String missing,
            boolean test,
            Amount cost,
            LocalDate arrivesOn) {}

    /** The rules as they are kept, or usual: cards and transfers, without limits. */
    public WaySetting setting() {
        return repository
                .find()
                .map(s -> new WaySetting(spokenOf(s.ways().stream()), s.version()))
                .orElseGet(() -> new WaySetting(
                        spokenOf(Arrays.stream(WayToPay.values())
                                .map(w -> w.usual(w == WayToPay.CARD || w == WayToPay.TRANSFER))),
                        0));
    }

    private List<TypedWay> spokenOf(Stream<TypedWay> ways) {
        boolean cards = !processors.ids().isEmpty();
        List<TypedWay> all = new ArrayList<>(ways.toList());
        // Rules that were kept before there was a way do not speak of it.
        for (WayToPay way : WayToPay.online()) {
            if (all.stream().noneMatch(w -> way.name().equals(w.way()))) {
                all.add(Math.min(way.ordinal(), all.size()), way.usual(false));
            }
        }
        return all.stream()
                .filter(w -> cards || !WayToPay.valueOf(w.way()).isOnline())
                .toList();
    }

    private List<WayRule> rules(List<TypedWay> typed, List<Problem> problems) {
        CurrencyUnit own = business.business().currencyUnit();
        List<WayRule> rules = new ArrayList<>();
        for (int i = 0; i < typed.size(); i++) {
            WayRule rule = WayRule.read("ways[" + i + "].", typed.get(i), own, problems);
            if (rule != null) {
                rules.add(rule);
            }
        }
        return rules;
    }

    /**
     * Changes the rules; what was issued keeps the account that is printed on it.
     *
     * @throws RefusedException with every field that is wrong
     * @throws ConflictException if another window changed them first
     */
    @Transactional
    public WaySetting change(List<TypedWay> typed, int version) {
        List<Problem> problems = new ArrayList<>();
        List<TypedWay> given = typed == null ? List.of() : typed;
        List<WayRule> read = rules(given, problems);
        List<String> known = processors.ids().stream().map(String::valueOf).toList();
        for (int i = 0; i < given.size(); i++) {
            String named = given.get(i).processor();
            if (!named.isEmpty() && !known.contains(named)) {
                problems.add(new Problem("ways[" + i + "].processor", named, "must be one that is set up, or empty"));
            }
        }
        if (read.stream().map(WayRule::way).distinct().count() != given.size()) {
            problems.add(new Problem("ways", "", "name each way once"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        List<TypedWay> all = new ArrayList<>(given);
        // What is not spoken of now keeps its rules.
        repository
                .find()
                .ifPresent(s -> s.ways().stream()
                        .filter(w -> given.stream().noneMatch(g -> g.way().equals(w.way())))
                        .forEach(all::add));
        if (!repository.keep(all, version)) {
            throw new ConflictException("The ways to pay were changed in another window. Look at them again.");
        }
        happenings.tell(null, null, "Ways to pay changed");
        return setting();
    }

    private static final List<String> EXAMPLES = List.of("100", "1000", "5000");

    /** What some sums would cost, and when their money would be there. */
    public record WayCost(WayToPay way, Amount sum, Amount cost, LocalDate arrivesOn) {}

    /** Costs by rules that are not kept yet; of a way that cannot be read there is none. */
    public List<WayCost> costs(List<TypedWay> typed) {
        CurrencyUnit own = business.business().currencyUnit();
        LocalDate today = clock.today();
        return rules(typed, new ArrayList<>()).stream()
                .flatMap(rule -> EXAMPLES.stream()
                        .map(e -> Money.of(own, new BigDecimal(e)))
                        .map(sum -> new WayCost(
                                rule.way(), Amount.of(sum), Amount.of(rule.cost(sum)), rule.arrives(today))))
                .toList();
    }

    /** Every way for a sum, in the order in which ways are named. @param documentId null where it is about none */
    public List<WayOffer> offers(Money sum, ClientId clientId, DocumentId documentId) {
        List<TypedWay> typed = setting().ways();
        return offers(typed, processor(typed), sum, clientId, documentId);
    }

    private List<WayOffer> offers(
            List<TypedWay> typed,
            Optional<Processors.SetUp> cards,
            Money sum,
            ClientId clientId,
            DocumentId documentId) {
        Business own = accounts.business(sum.getCurrencyUnit());
        String country = clientId == null ? "" : clients.client(clientId).country();
        WayRule.Asked asked = new WayRule.Asked(sum, inOwn(sum), country.isEmpty() ? own.country() : country);
        Set<WayToPay> client = clientId == null ? null : ofClient(clientId);
        Set<WayToPay> document = documentId == null ? null : ofDocument(documentId);
        LocalDate today = clock.today();
        List<WayRule> rules =
                ReadOnce.of("way_setting", List.of(own.currency(), typed), () -> rules(typed, new ArrayList<>()));
        return rules.stream()
                .sorted(java.util.Comparator.comparing(WayRule::way))
                .map(rule -> {
                    String byRule = missing(rule, asked, own, client, document);
                    boolean card = rule.way().isOnline() && byRule.isEmpty();
                    String missing = card ? cards.map(Processors.SetUp::missing).orElse("") : byRule;
                    return new WayOffer(
                            rule.way(),
                            rule.way().words(),
                            rule.way().isWallet(),
                            rule.on(),
                            missing.isEmpty(),
                            missing,
                            card && cards.map(Processors.SetUp::isTest).orElse(false),
                            Amount.of(rule.cost(sum)),
                            rule.arrives(today));
                })
                .toList();
    }

    private static String missing(
            WayRule rule, WayRule.Asked asked, Business own, Set<WayToPay> client, Set<WayToPay> document) {
        if (document != null && !document.contains(rule.way())) {
            return "this document does without it";
        }
        if (client != null && !client.contains(rule.way())) {
            return "this client does without it";
        }
        if (rule.on() && rule.way() == WayToPay.TRANSFER && own.account().iban().isBlank()) {
            return "you have named no bank account";
        }
        return rule.missing(asked);
    }

    /** At the latest rate; where none is known, as it is, so that no limit is passed over in silence. */
    private Money inOwn(Money sum) {
        CurrencyUnit own = business.business().currencyUnit();
        return rates.exchange(sum.getCurrencyUnit(), clock.today())
                .map(e -> e.of(sum))
                .orElseGet(() -> Money.of(own, sum.getAmount(), java.math.RoundingMode.HALF_UP));
    }

    /** The processor that a card goes through; empty where none is set up. */
    private Optional<Processors.SetUp> processor(List<TypedWay> typed) {
        return processors.through(typed.stream()
                .filter(w -> WayToPay.CARD.name().equals(w.way()))
                .map(TypedWay::processor)
                .findFirst()
                .orElse(""));
    }

    /** What takes a sum on its own page. @param by the processor @param ways in which it does, one at least */
    public record Taking(Processors.SetUp by, Set<WayToPay> ways) {
        /**
         * The same in one way alone; empty where that is none of them. A card in a wallet is a card.
         *
         * @param way null for all of them
         */
        public Optional<Taking> only(WayToPay way) {
            Set<WayToPay> left = ways.stream()
                    .filter(w -> way == null || w == way || way == WayToPay.CARD && w.isCard())
                    .collect(Collectors.toSet());
            return left.isEmpty() ? Optional.empty() : Optional.of(new Taking(by, left));
        }
    }

    /** The processor that takes a sum now, be it for money or on trial; empty where it is not taken so. */
    public Optional<Taking> taking(Money sum, ClientId clientId, DocumentId documentId) {
        List<TypedWay> typed = setting().ways();
        Optional<Processors.SetUp> cards = processor(typed);
        return cards.map(c -> new Taking(
                        c,
                        offers(typed, cards, sum, clientId, documentId).stream()
                                .filter(o -> o.way().isOnline() && (o.offered() || o.test()))
                                .map(WayOffer::way)
                                .collect(Collectors.toSet())))
                .filter(t -> !t.ways().isEmpty());
    }

    /** The same; @param hold whether it is only to be held, which cards alone do */
    public Optional<Taking> taking(Money sum, ClientId clientId, DocumentId documentId, boolean hold) {
        return taking(sum, clientId, documentId).flatMap(t -> t.only(hold ? WayToPay.CARD : null));
    }

    /** With whom a client's card or mandate can be kept, and which of them; empty where neither is taken. */
    public Optional<Taking> keeping(ClientId clientId) {
        List<TypedWay> typed = setting().ways();
        Set<WayToPay> client = ofClient(clientId);
        return processor(typed)
                .filter(p -> p.missing().isEmpty())
                .map(p -> new Taking(
                        p,
                        rules(typed, new ArrayList<>()).stream()
                                .filter(r -> r.on() && r.way().isOnline())
                                .map(WayRule::way)
                                .filter(w -> !w.isWallet()) // What is kept is typed.
                                .filter(w -> client == null || client.contains(w))
                                .collect(Collectors.toSet())))
                .filter(t -> !t.ways().isEmpty());
    }

    /** Whether a sum can be paid in a way now. */
    public boolean isOffered(WayToPay way, Money sum, ClientId clientId, DocumentId documentId) {
        return offers(sum, clientId, documentId).stream().anyMatch(o -> o.way() == way && o.offered());
    }

    /** What a way costs and how long it takes, as the rules say now. @param cost of this sum @param how it is reckoned, in words */
    public record Usual(Money cost, String how, LocalDate arrivesOn) {}

    /** For a sum that was paid on a day; empty where no rule speaks of the way. */
    public Optional<Usual> usual(WayToPay way, Money sum, LocalDate paidOn) {
        return rules(setting().ways(), new ArrayList<>()).stream()
                .filter(r -> r.way() == way)
                .findFirst()
                .map(r -> new Usual(r.cost(sum), r.costWords(sum), r.arrives(paidOn)));
    }

    /** What a client is limited to; null for nothing. */
    public Set<WayToPay> ofClient(ClientId id) {
        return repository.ofClient(id).orElse(null);
    }

    /** What a document is limited to; null for nothing. */
    public Set<WayToPay> ofDocument(DocumentId id) {
        return repository.ofDocument(id).orElse(null);
    }

    /** Limits a client to some ways. @param ways null for as usual */
    @Transactional
    public void chooseForClient(ClientId id, Set<WayToPay> ways) {
        clients.lock(id);
        repository.chooseForClient(id, ways);
        happenings.tell(null, id, "Ways to pay: " + words(ways));
    }

    /** Limits a document to some ways. @param clientId whose it is; null for a draft without one */
    @Transactional
    public void chooseForDocument(DocumentId id, ClientId clientId, Set<WayToPay> ways) {
        if (clientId != null) {
            clients.lock(clientId);
        }
        repository.chooseForDocument(id, ways);
        happenings.tell(id, clientId, "Ways to pay: " + words(ways));
    }

    /** Whether a document's page only holds a card's money, until the work is done. @param id null for none */
    public boolean holds(DocumentId id) {
        return id != null && repository.holds(id);
    }

    /** A document's page takes from now on what it held before, or the other way about; told within the transaction. */
    public record HoldChanged(DocumentId document) {}

    /** Lets a document's page only hold a card's money, or take it. @param clientId whose it is; null for a draft without one */
    @Transactional
    public void hold(DocumentId id, ClientId clientId, boolean holds) {
        if (clientId != null) {
            clients.lock(clientId);
        }
        repository.hold(id, holds);
        happenings.tell(
                id,
                clientId,
                holds ? "Its page only holds the money on a card, until the work is done" : "Its page takes the money");
    }

    private static String words(Set<WayToPay> ways) {
        if (ways == null) {
            return "as usual";
        }
        return ways.isEmpty() ? "none" : ways.stream().map(WayToPay::words).collect(Collectors.joining(", "));
    }
}
