package quill.server.formats;

import com.helger.diagnostics.error.list.ErrorList;
import com.helger.ubl21.UBL21Marshaller;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.AddressLineType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.AddressType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.AttachmentType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.BranchType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.CountryType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.CreditNoteLineType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.CustomerPartyType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.DeliveryType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.DocumentReferenceType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.FinancialAccountType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.InvoiceLineType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.ItemType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.LocationType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.OrderReferenceType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PartyIdentificationType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PartyLegalEntityType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PartyTaxSchemeType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PartyType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PaymentMeansType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PaymentTermsType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PriceType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.ProjectReferenceType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.SupplierPartyType;
import oasis.names.specification.ubl.schema.xsd.commonbasiccomponents_21.DescriptionType;
import oasis.names.specification.ubl.schema.xsd.commonbasiccomponents_21.NoteType;
import oasis.names.specification.ubl.schema.xsd.commonbasiccomponents_21.PaymentIDType;
import oasis.names.specification.ubl.schema.xsd.creditnote_21.CreditNoteType;
import oasis.names.specification.ubl.schema.xsd.invoice_21.InvoiceType;
import quill.core.RefusedException;
import quill.core.catalogue.UnitCodes;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedLine;
import quill.core.issued.Party;
import quill.core.tax.TaxCategory;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.documents.Attachments;

/** Writes an issued invoice or credit note as UBL 2.1 following EN 16931. */
final class UblWriting {
    private static final String EN_16931 = "urn:cen.eu:en16931:2017";
    private static final String INVOICE = "380";
    /** UNCL 1001: for what is paid before it is supplied. */
    private static final String PREPAYMENT_INVOICE = "386";

    private static final String CREDIT_NOTE = "381";
    private static final String CREDIT_TRANSFER = "30";

    private final UblDocument source;
    private final IssuedDocument d;
    private final String code;
    private final UblMoney money;
    private final boolean outside;

    private UblWriting(UblDocument source) {
        this.source = source;
        this.d = source.document();
        this.code = d.currency().getCode();
        this.money = new UblMoney(d);
        // Where everything is outside the scope of tax, no VAT identifier may stand (BR-O-2).
        this.outside = d.sums().taxes().stream().anyMatch(t -> t.tax().category() == TaxCategory.O);
    }

    /** @throws RefusedException for what EN 16931 cannot carry, with every reason at once */
    static byte[] write(UblDocument source) {
        UblRules.check(source.document());
        UblWriting writing = new UblWriting(source);
        ErrorList errors = new ErrorList();
        byte[] ubl = source.document().corrects() != null
                ? UBL21Marshaller.creditNote()
                        .setFormattedOutput(true)
                        .setCollectErrors(errors)
                        .getAsBytes(writing.creditNote())
                : UBL21Marshaller.invoice()
                        .setFormattedOutput(true)
                        .setCollectErrors(errors)
                        .getAsBytes(writing.invoice());
        if (ubl == null) {
            throw new IllegalStateException(source.document().number() + " does not keep to the schema: " + errors);
        }
        return ubl;
    }

    private InvoiceType invoice() {
        InvoiceType i = new InvoiceType();
        i.setCustomizationID(EN_16931);
        i.setID(Texts.printable(d.number()));
        i.setIssueDate(d.issuedOn());
        if (source.isDueOnOneDay()) {
            i.setDueDate(source.due().get(0).on());
        }
        i.setInvoiceTypeCode(d.isForDeposit() ? PREPAYMENT_INVOICE : INVOICE);
        notes().forEach(i::addNote);
        i.setDocumentCurrencyCode(code);
        if (d.exchange() != null) {
            i.setTaxCurrencyCode(d.exchange().own().getCode());
        }
        if (d.matter().supplyEnd() != null) {
            i.addInvoicePeriod(UblReferences.period(d.matter()));
        }
        if (!d.matter().reference().isEmpty()) {
            i.setOrderReference(order());
        }
        if (d.job() != null) {
            d.job().earlier().forEach(e -> i.addBillingReference(UblReferences.billing(e.number(), e.issuedOn())));
        }
        files().forEach(i::addAdditionalDocumentReference);
        if (!d.matter().project().isEmpty()) {
            ProjectReferenceType project = new ProjectReferenceType();
            project.setID(Texts.printable(d.matter().project()));
            i.addProjectReference(project);
        }
        i.setAccountingSupplierParty(supplier());
        i.setAccountingCustomerParty(customer());
        if (isDelivered()) {
            i.addDelivery(delivery());
        }
        if (!d.paying().iban().isEmpty()) {
            i.addPaymentMeans(means());
        }
        String terms = terms();
        if (!terms.isEmpty()) {
            PaymentTermsType type = new PaymentTermsType();
            type.addNote(new NoteType(terms));
            i.addPaymentTerms(type);
        }
        money.allowancesAndCharges().forEach(i::addAllowanceCharge);
        money.taxTotals().forEach(i::addTaxTotal);
        i.setLegalMonetaryTotal(money.totals());
        for (int n = 0; n < d.lines().size(); n++) {
            InvoiceLineType line = new InvoiceLineType();
            line.setID(String.valueOf(n + 1));
            line.setInvoicedQuantity(d.lines().get(n).quantity()).setUnitCode(unit(n));
            line.setLineExtensionAmount(money.net(n).getAmount()).setCurrencyID(code);
            if (!money.off(n).isZero()) {
                line.addAllowanceCharge(money.allowance(false, money.off(n), "Discount"));
            }
            line.setItem(item(n));
            line.setPrice(price(n));
            i.addInvoiceLine(line);
        }
        return i;
    }

    private CreditNoteType creditNote() {
        CreditNoteType c = new CreditNoteType();
        c.setCustomizationID(EN_16931);
        c.setID(Texts.printable(d.number()));
        c.setIssueDate(d.issuedOn());
        c.setCreditNoteTypeCode(CREDIT_NOTE);
        c.addNote(new NoteType(Texts.printable(d.corrects().reason())));
        notes().forEach(c::addNote);
        c.setDocumentCurrencyCode(code);
        if (d.exchange() != null) {
            c.setTaxCurrencyCode(d.exchange().own().getCode());
        }
        if (d.matter().supplyEnd() != null) {
            c.addInvoicePeriod(UblReferences.period(d.matter()));
        }
        if (!d.matter().reference().isEmpty()) {
            c.setOrderReference(order());
        }
        c.addBillingReference(
                UblReferences.billing(d.corrects().number(), d.corrects().issuedOn()));
        c.setAccountingSupplierParty(supplier());
        c.setAccountingCustomerParty(customer());
        if (isDelivered()) {
            c.addDelivery(delivery());
        }
        PaymentTermsType terms = new PaymentTermsType();
        terms.addNote(new NoteType("Lowers what is open, or is held as credit"));
        c.addPaymentTerms(terms);
        money.allowancesAndCharges().forEach(c::addAllowanceCharge);
        money.taxTotals().forEach(c::addTaxTotal);
        c.setLegalMonetaryTotal(money.totals());
        for (int n = 0; n < d.lines().size(); n++) {
            CreditNoteLineType line = new CreditNoteLineType();
            line.setID(String.valueOf(n + 1));
            line.setCreditedQuantity(d.lines().get(n).quantity()).setUnitCode(unit(n));
            line.setLineExtensionAmount(money.net(n).getAmount()).setCurrencyID(code);
            if (!money.off(n).isZero()) {
                line.addAllowanceCharge(money.allowance(false, money.off(n), "Discount"));
            }
            line.setItem(item(n));
            line.setPrice(price(n));
            c.addCreditNoteLine(line);
        }
        return c;
    }

    private List<NoteType> notes() {
        String fields = d.matter().fields().stream()
                .map(f -> f.label() + ": " + f.value())
                .collect(Collectors.joining("\n"));
        return Stream.of(d.matter().subject(), fields, d.matter().notes())
                .filter(n -> !n.isEmpty())
                .map(n -> new NoteType(Texts.printable(n)))
                .toList();
    }

    private OrderReferenceType order() {
        OrderReferenceType order = new OrderReferenceType();
        order.setID(Texts.printable(d.matter().reference()));
        return order;
    }

    private List<DocumentReferenceType> files() {
        return source.files().stream()
                .filter(f -> !"text/plain".equals(f.file().type()))
                .map(UblWriting::file)
                .toList();
    }

    private static DocumentReferenceType file(Attachments.Content content) {
        DocumentReferenceType reference = new DocumentReferenceType();
        reference.setID(Texts.printable(content.file().name()));
        AttachmentType attachment = new AttachmentType();
        var embedded = attachment.setEmbeddedDocumentBinaryObject(content.bytes());
        embedded.setMimeCode(content.file().type());
        embedded.setFilename(content.file().name());
        reference.setAttachment(attachment);
        return reference;
    }

    private SupplierPartyType supplier() {
        Party from = d.from();
        PartyType party = party(from);
        boolean vat = !outside && UblRules.isVat(from.taxNumber());
        if (vat) {
            party.addPartyTaxScheme(scheme(from.taxNumber(), "VAT"));
        } else {
            // BR-CO-26 asks for some identifier of the seller.
            PartyIdentificationType id = new PartyIdentificationType();
            id.setID(Texts.printable(from.taxNumber().isEmpty() ? from.email() : from.taxNumber()));
            party.addPartyIdentification(id);
            if (!outside && !from.taxNumber().isEmpty()) {
                party.addPartyTaxScheme(scheme(from.taxNumber(), "TAX"));
            }
        }
        party.addPartyLegalEntity(legal(from.name(), ""));
        SupplierPartyType supplier = new SupplierPartyType();
        supplier.setParty(party);
        return supplier;
    }

    private CustomerPartyType customer() {
        Party to = d.to();
        PartyType party = party(to);
        boolean vat = !outside && UblRules.isVat(to.taxNumber());
        if (vat) {
            party.addPartyTaxScheme(scheme(to.taxNumber(), "VAT"));
        }
        party.addPartyLegalEntity(legal(to.name(), vat ? "" : to.taxNumber()));
        CustomerPartyType customer = new CustomerPartyType();
        customer.setParty(party);
        return customer;
    }

    private static PartyType party(Party p) {
        PartyType party = new PartyType();
        if (!p.email().isEmpty()) {
            party.setEndpointID(p.email()).setSchemeID("EM");
        }
        party.setPostalAddress(address(p.address(), p.country()));
        return party;
    }

    private static AddressType address(String text, String code) {
        AddressType address = new AddressType();
        CountryType country = new CountryType();
        country.setIdentificationCode(code);
        address.setCountry(country);
        List<String> lines =
                text.lines().map(String::strip).filter(l -> !l.isEmpty()).toList();
        if (!lines.isEmpty()) {
            address.setStreetName(Texts.printable(lines.get(0)));
        }
        if (lines.size() > 2) {
            address.setAdditionalStreetName(Texts.printable(lines.get(1)));
        }
        if (lines.size() > 1) {
            address.setCityName(Texts.printable(lines.get(lines.size() - 1)));
        }
        if (lines.size() > 3) {
            AddressLineType more = new AddressLineType();
            more.setLine(Texts.printable(String.join(", ", lines.subList(2, lines.size() - 1))));
            address.addAddressLine(more);
        }
        return address;
    }

    private static PartyTaxSchemeType scheme(String number, String scheme) {
        PartyTaxSchemeType tax = new PartyTaxSchemeType();
        tax.setCompanyID(number.replace(" ", "").toUpperCase(Locale.ROOT));
        tax.setTaxScheme(UblMoney.scheme(scheme));
        return tax;
    }

    private static PartyLegalEntityType legal(String name, String number) {
        PartyLegalEntityType legal = new PartyLegalEntityType();
        legal.setRegistrationName(Texts.printable(name));
        if (!number.isEmpty()) {
            legal.setCompanyID(Texts.printable(number));
        }
        return legal;
    }

    private boolean isDelivered() {
        return d.matter().supplyDate() != null || hasPlace();
    }

    /** BR-57: a place of delivery is named only where its country is known. */
    private boolean hasPlace() {
        return !d.to().delivery().isEmpty() && !d.to().country().isEmpty();
    }

    private DeliveryType delivery() {
        DeliveryType delivery = new DeliveryType();
        if (d.matter().supplyDate() != null) {
            delivery.setActualDeliveryDate(
                    d.matter().supplyEnd() == null
                            ? d.matter().supplyDate()
                            : d.matter().supplyEnd());
        }
        if (hasPlace() || d.sums().taxes().stream().anyMatch(t -> t.tax().category() == TaxCategory.K)) {
            LocationType location = new LocationType();
            location.setAddress(address(d.to().delivery(), d.to().country()));
            delivery.setDeliveryLocation(location);
        }
        return delivery;
    }

    private PaymentMeansType means() {
        PaymentMeansType means = new PaymentMeansType();
        means.setPaymentMeansCode(CREDIT_TRANSFER);
        means.addPaymentID(new PaymentIDType(d.paying().reference()));
        FinancialAccountType account = new FinancialAccountType();
        account.setID(d.paying().iban().replace(" ", ""));
        if (!d.paying().bic().isEmpty()) {
            BranchType branch = new BranchType();
            branch.setID(d.paying().bic());
            account.setFinancialInstitutionBranch(branch);
        }
        means.setPayeeFinancialAccount(account);
        return means;
    }

    private String terms() {
        String schedule = source.due().isEmpty() || source.isDueOnOneDay()
                ? ""
                : source.due().stream()
                        .map(p -> Shown.money(p.amount())
                                + (p.on() == null ? ", " + p.words() : " due " + Texts.day(p.on())))
                        .collect(Collectors.joining(", "));
        return Texts.printable(
                Stream.of(schedule, d.matter().terms(), d.paying().lateFee())
                        .filter(t -> !t.isEmpty())
                        .collect(Collectors.joining("\n")));
    }

    private String unit(int line) {
        IssuedLine l = d.lines().get(line);
        return l.unitCode().isEmpty() ? UnitCodes.code(l.unit()) : l.unitCode();
    }

    private ItemType item(int line) {
        IssuedLine l = d.lines().get(line);
        ItemType item = new ItemType();
        item.setName(Texts.printable(
                UnitCodes.isLost(l.unit(), unit(line)) ? l.description() + " (" + l.unit() + ")" : l.description()));
        if (!l.note().isEmpty()) {
            // BT-154, the item's description.
            item.addDescription(new DescriptionType(Texts.printable(l.note())));
        }
        item.addClassifiedTaxCategory(money.category(money.taxOf(l.group()), false));
        return item;
    }

    private PriceType price(int line) {
        PriceType price = new PriceType();
        price.setPriceAmount(money.price(line)).setCurrencyID(code);
        return price;
    }
}
