package quill.core.document;

import java.util.List;
import java.util.Map;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.schedule.TypedTerm;

/** Fills a draft in, field by field, as a person does; what is left out stays empty. */
public final class DraftBuilder {
    private final String currency;
    private ClientId clientId;
    private String rate = "";
    private String subject = "";
    private String reference = "";
    private String project = "";
    private String supplyDate = "";
    private String supplyEnd = "";
    private boolean taxInside;
    private boolean cash;
    private List<TypedLine> lines = List.of();
    private List<TypedExtra> discounts = List.of();
    private List<TypedExtra> charges = List.of();
    private String prepaid = "";
    private List<TypedTerm> schedule = List.of();
    private String notes = "";
    private String terms = "";
    private String memo = "";
    private Map<String, String> fields = Map.of();
    private TypedLateFeePolicy lateFee;
    private TypedOffer offer;
    private TypedJob job;
    private TypedInstallmentOffer plan;
    private String mark;

    /** @param currency ISO 4217 code */
    DraftBuilder(String currency) {
        this.currency = currency;
    }

    DraftBuilder(TypedDraft d) {
        clientId = d.clientId();
        currency = d.currency();
        rate = d.rate();
        subject = d.subject();
        reference = d.reference();
        project = d.project();
        supplyDate = d.supplyDate();
        supplyEnd = d.supplyEnd();
        taxInside = d.taxInside();
        cash = d.cash();
        lines = d.lines();
        discounts = d.discounts();
        charges = d.charges();
        prepaid = d.prepaid();
        schedule = d.schedule();
        notes = d.notes();
        terms = d.terms();
        memo = d.memo();
        fields = d.fields();
        lateFee = d.lateFee();
        offer = d.offer();
        job = d.job();
        plan = d.plan();
        mark = d.mark();
    }

    /** Whom it is for; null while nobody is chosen. */
    public DraftBuilder client(ClientId to) {
        clientId = to;
        return this;
    }

    /** What 1 of its currency is in the business’s own; empty for the latest rate. */
    public DraftBuilder rate(String to) {
        rate = to;
        return this;
    }

    /** What it is for, in a few words. */
    public DraftBuilder subject(String to) {
        subject = to;
        return this;
    }

    /** The client’s order number. */
    public DraftBuilder reference(String to) {
        reference = to;
        return this;
    }

    /** The client’s project. */
    public DraftBuilder project(String to) {
        project = to;
        return this;
    }

    /** ISO date of supply. */
    public DraftBuilder supplyDate(String to) {
        supplyDate = to;
        return this;
    }

    /** Last day of the period of supply. */
    public DraftBuilder supplyEnd(String to) {
        supplyEnd = to;
        return this;
    }

    /** Whether prices include the tax. */
    public DraftBuilder taxInside(boolean to) {
        taxInside = to;
        return this;
    }

    /** Whether what is due is rounded to a coin. */
    public DraftBuilder cash(boolean to) {
        cash = to;
        return this;
    }

    /** What is done and sold. */
    public DraftBuilder lines(List<TypedLine> to) {
        lines = to;
        return this;
    }

    /** On the whole document. */
    public DraftBuilder discounts(List<TypedExtra> to) {
        discounts = to;
        return this;
    }

    /** With their own taxes. */
    public DraftBuilder charges(List<TypedExtra> to) {
        charges = to;
        return this;
    }

    /** What is taken from deposits held. */
    public DraftBuilder prepaid(String to) {
        prepaid = to;
        return this;
    }

    /** When what is due. */
    public DraftBuilder schedule(List<TypedTerm> to) {
        schedule = to;
        return this;
    }

    /** To the client, under the sums. */
    public DraftBuilder notes(String to) {
        notes = to;
        return this;
    }

    /** Printed small. */
    public DraftBuilder terms(String to) {
        terms = to;
        return this;
    }

    /** For the business only. */
    public DraftBuilder memo(String to) {
        memo = to;
        return this;
    }

    /** The business’s own fields, by their labels. */
    public DraftBuilder fields(Map<String, String> to) {
        fields = to;
        return this;
    }

    /** A policy of its own. */
    public DraftBuilder lateFee(TypedLateFeePolicy to) {
        lateFee = to;
        return this;
    }

    /** What only a quote says; null for all else. */
    public DraftBuilder offer(TypedOffer to) {
        offer = to;
        return this;
    }

    /** The accepted quote that it bills; null for what stands for itself. */
    public DraftBuilder job(TypedJob to) {
        job = to;
        return this;
    }

    /** What it offers its client before it is paid; null for nothing. */
    public DraftBuilder plan(TypedInstallmentOffer to) {
        plan = to;
        return this;
    }

    /** The decimal mark of its numbers, {@code .} or {@code ,}. */
    public DraftBuilder mark(String to) {
        mark = to;
        return this;
    }

    /** The draft. */
    public TypedDraft build() {
        return new TypedDraft(
                clientId,
                currency,
                rate,
                subject,
                reference,
                project,
                supplyDate,
                supplyEnd,
                taxInside,
                cash,
                lines,
                discounts,
                charges,
                prepaid,
                schedule,
                notes,
                terms,
                memo,
                fields,
                lateFee,
                offer,
                job,
                plan,
                mark);
    }
}
