package quill.server.latefees;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.annotation.Bean;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.util.ConcurrentLruCache;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.FeeTax;
import quill.core.latefee.LateFeePolicy;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.money.DecimalMark;
import quill.core.money.Exchange;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;
import quill.server.business.BusinessService;
import quill.server.common.ClientRows;
import quill.server.common.ConflictException;
import quill.server.common.Ids;
import quill.server.common.Json;
import quill.server.common.ValueJson;

/**
 * Late-fee policies: the business's own, a client's, and the one that was fixed with each invoice. Tables
 * LATE_FEE_SETTING, CLIENT_LATE_FEE and FIXED_LATE_FEE.
 */
@Service
public class FeePolicies {
    /** Common practice: a late fee of at most 10%. */
    private static final String USUAL_CEILING = "10";

    private static final int READ_BEFORE = 200;

    private final JdbcClient jdbc;
    private final BusinessService business;
    private final Json json;
    private final ValueJson values;
    private final ApplicationEventPublisher publisher;
    /** Many invoices have the same one, letter for letter. */
    private final ConcurrentLruCache<String, LateFeePolicy> read;

    FeePolicies(
            JdbcClient jdbc,
            BusinessService business,
            Json json,
            ValueJson values,
            ApplicationEventPublisher publisher) {
        this.jdbc = jdbc;
        this.business = business;
        this.json = json;
        this.values = values;
        this.publisher = publisher;
        this.read = new ConcurrentLruCache<>(READ_BEFORE, text -> values.read(text, LateFeePolicy.class));
    }

    /** Told within the transaction that changes how fees come about from now on. */
    public record PoliciesChanged() {}

    /**
     * What the business has set.
     *
     * @param ceiling percent; no policy may ask for more
     * @param review whether a person decides about each fee
     */
    public record FeeSetting(TypedLateFeePolicy policy, String ceiling, boolean review, int version) {
        /** A new business charges nothing, and reviews first once it does. */
        static FeeSetting usual() {
            return new FeeSetting(TypedLateFeePolicy.none(), USUAL_CEILING, true, 0);
        }

        /** The same with its numbers as programs write them. @param mark with which they were typed */
        public FeeSetting plain(DecimalMark mark) {
            return new FeeSetting(policy == null ? null : policy.plain(mark), mark.plain(ceiling), review, version);
        }
    }

    /** The business's setting. */
    public FeeSetting setting() {
        return jdbc.sql("SELECT policy, ceiling, review, version FROM late_fee_setting WHERE id = 1")
                .query((rs, n) -> new FeeSetting(
                        json.read(rs.getString(1), TypedLateFeePolicy.class),
                        new Percent(rs.getBigDecimal(2)).rate().toPlainString(),
                        rs.getBoolean(3),
                        rs.getInt(4)))
                .optional()
                .orElseGet(FeeSetting::usual);
    }

    /** Changes it for invoices issued from now on. @throws ConflictException if another window changed it first */
    @Transactional
    public FeeSetting change(FeeSetting setting) {
        if (setting.policy() == null) {
            throw new RefusedException("policy", "", "send the whole policy; its kind may be none");
        }
        List<Problem> problems = new ArrayList<>();
        Percent ceiling = TypedNumber.percent("ceiling", setting.ceiling(), problems);
        if (ceiling != null) {
            read(setting.policy(), "policy.", ceiling, problems);
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (write(setting, ceiling.rate()) != 1) {
            throw new ConflictException("These settings were changed in another window. Look at them again.");
        }
        publisher.publishEvent(new PoliciesChanged());
        return setting();
    }

    private int write(FeeSetting setting, BigDecimal ceiling) {
        if (setting.version() == 0) {
            try {
                return jdbc.sql("""
                        INSERT INTO late_fee_setting (id, policy, ceiling, review) VALUES (1, :policy, :ceiling, :review)
                        """)
                        .param("policy", json.write(setting.policy()))
                        .param("ceiling", ceiling)
                        .param("review", setting.review())
                        .update();
            } catch (DuplicateKeyException e) {
                return 0;
            }
        }
        return jdbc.sql("""
                UPDATE late_fee_setting
                   SET policy = :policy, ceiling = :ceiling, review = :review, version = version + 1
                 WHERE id = 1 AND version = :version
                """)
                .param("policy", json.write(setting.policy()))
                .param("ceiling", ceiling)
                .param("review", setting.review())
                .param("version", setting.version())
                .update();
    }

    /** A client's own policy, or empty where the business's holds. */
    public Optional<TypedLateFeePolicy> ofClient(ClientId clientId) {
        return jdbc.sql("SELECT policy FROM client_late_fee WHERE client_id = :client")
                .param("client", clientId)
                .query(String.class)
                .optional()
                .map(p -> json.read(p, TypedLateFeePolicy.class));
    }

    /** Gives a client a policy of its own, for invoices issued from now on; null takes it away. */
    @Transactional
    public void setForClient(ClientId clientId, TypedLateFeePolicy policy) {
        if (policy != null) {
            refuseUnreadable(policy, "lateFee.");
        }
        jdbc.sql("DELETE FROM client_late_fee WHERE client_id = :client")
                .param("client", clientId)
                .update();
        if (policy != null) {
            jdbc.sql("INSERT INTO client_late_fee (client_id, policy) VALUES (:client, :policy)")
                    .param("client", clientId)
                    .param("policy", json.write(policy))
                    .update();
        }
    }

    private void refuseUnreadable(TypedLateFeePolicy policy, String path) {
        List<Problem> problems = new ArrayList<>();
        read(policy, path, new Percent(new BigDecimal(setting().ceiling())), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    private LateFeePolicy read(TypedLateFeePolicy typed, String path, Percent ceiling, List<Problem> problems) {
        if (typed == null) {
            problems.add(new Problem(path + "kind", "", "must be none, flat or percent"));
            return null;
        }
        return typed.read(path, business.business().currencyUnit(), ceiling, problems);
    }

    /**
     * What an invoice issued now would say: its own policy, else its client's, else the business's, with its sums in the
     * invoice's currency.
     *
     * @param exchange at the rate that is kept with the invoice
     */
    public LateFeePolicy forIssue(
            ClientId clientId,
            TypedLateFeePolicy own,
            CurrencyUnit currency,
            Exchange exchange,
            List<Problem> problems) {
        TypedLateFeePolicy typed = inForce(clientId, own);
        LateFeePolicy policy = typed.read("lateFee.", exchange.own(), ceiling(), problems);
        return policy == null
                ? LateFeePolicy.none(Money.zero(currency))
                : typed.in(currency, exchange).read("lateFee.", currency, ceiling(), problems);
    }

    private Percent ceiling() {
        return new Percent(new BigDecimal(setting().ceiling()));
    }

    private TypedLateFeePolicy inForce(ClientId clientId, TypedLateFeePolicy own) {
        if (own != null) {
            return own;
        }
        return Optional.ofNullable(clientId)
                .flatMap(this::ofClient)
                .orElseGet(() -> setting().policy());
    }

    /**
     * Fixes the policy of an invoice at issue, as it is printed.
     *
     * @param policy in the invoice's own currency
     * @param tax the taxes that a fee on it bears, where fees bear any
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void fix(DocumentId invoiceId, LateFeePolicy policy, FeeTax tax) {
        if (!policy.isNone()) {
            jdbc.sql("INSERT INTO fixed_late_fee (invoice_id, policy) VALUES (:invoice, :policy)")
                    .param("invoice", invoiceId)
                    .param("policy", values.write(policy.tax().borne() ? policy.with(tax) : policy))
                    .update();
        }
    }

    /** An invoice that goes back to a draft, or is voided, has no policy any more. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void unfix(DocumentId invoiceId) {
        jdbc.sql("DELETE FROM fixed_late_fee WHERE invoice_id = :invoice")
                .param("invoice", invoiceId)
                .update();
    }

    /** The policies that were fixed with these invoices; one without is not in it. */
    public Map<DocumentId, LateFeePolicy> fixedFor(Collection<DocumentId> invoiceIds) {
        Map<DocumentId, LateFeePolicy> fixed = new HashMap<>();
        if (invoiceIds.isEmpty()) {
            return fixed;
        }
        jdbc.sql("""
                SELECT invoice_id, policy FROM fixed_late_fee
                  JOIN UNNEST(CAST(:invoices AS BIGINT ARRAY)) AS given (one) ON one = invoice_id
                """).param("invoices", Ids.array(invoiceIds)).query(rs -> {
            fixed.put(new DocumentId(rs.getLong(1)), read.get(rs.getString(2)));
        });
        return fixed;
    }

    /** The policy of the one that stays holds; only where it has none, the other's. */
    @Bean
    ClientRows policiesOfClients() {
        return ClientRows.single(jdbc, "client_late_fee");
    }
}
