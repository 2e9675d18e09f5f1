package quill.server.formats;

import java.time.LocalDate;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.BillingReferenceType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.DocumentReferenceType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PeriodType;
import quill.core.issued.Matter;
import quill.server.common.Texts;

/** What a document refers to: earlier documents, and the period of its supply. */
final class UblReferences {
    private UblReferences() {}

    /** A preceding invoice (BG-3). */
    static BillingReferenceType billing(String number, LocalDate issuedOn) {
        BillingReferenceType billing = new BillingReferenceType();
        DocumentReferenceType invoice = new DocumentReferenceType();
        invoice.setID(Texts.printable(number));
        invoice.setIssueDate(issuedOn);
        billing.setInvoiceDocumentReference(invoice);
        return billing;
    }

    /** When it was supplied, of work that took more than a day (BG-14). */
    static PeriodType period(Matter matter) {
        PeriodType period = new PeriodType();
        period.setStartDate(matter.supplyDate());
        period.setEndDate(matter.supplyEnd());
        return period;
    }
}
