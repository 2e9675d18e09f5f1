package quill.server.formats;

import com.helger.ubl21.UBL21Marshaller;
import com.helger.xsds.ccts.cct.schemamodule.QuantityType;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.AllowanceChargeType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.ItemType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.MonetaryTotalType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PartyType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PriceType;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.TaxTotalType;
import oasis.names.specification.ubl.schema.xsd.creditnote_21.CreditNoteType;
import oasis.names.specification.ubl.schema.xsd.invoice_21.InvoiceType;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.xml.sax.ErrorHandler;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;
import quill.core.RefusedException;

/** What an invoice and a credit note in UBL have in common. */
record UblSource(
        boolean creditNote,
        String number,
        java.time.LocalDate issuedOn,
        String currency,
        PartyType seller,
        PartyType buyer,
        SourceMatter matter,
        List<SourceLine> lines,
        List<AllowanceChargeType> extras,
        List<TaxTotalType> taxes,
        MonetaryTotalType totals) {
    /** What it is about; nulls where the file does not say. */
    record SourceMatter(
            String order,
            String project,
            String note,
            java.time.LocalDate suppliedOn,
            java.time.LocalDate suppliedTo,
            java.time.LocalDate dueOn) {}

    /** A line of either. */
    record SourceLine(
            QuantityType quantity,
            java.math.BigDecimal net,
            List<AllowanceChargeType> extras,
            ItemType item,
            PriceType price) {}

    private static final int DEEPEST = 60;
    private static final String INVOICE = "urn:oasis:names:specification:ubl:schema:xsd:Invoice-2";
    private static final String CREDIT_NOTE = "urn:oasis:names:specification:ubl:schema:xsd:CreditNote-2";

    /**
     * Parses a file. A document type declaration is refused before anything in it is read, so that no entity is ever
     * expanded and nothing is fetched.
     *
     * @throws RefusedException naming {@code file}
     */
    static UblSource parse(byte[] bytes) {
        refuseDepth(bytes);
        Element root = dom(bytes).getDocumentElement();
        String name = root.getNamespaceURI() + " " + root.getLocalName();
        if (name.equals(INVOICE + " Invoice")) {
            InvoiceType invoice = UBL21Marshaller.invoice().read(root.getOwnerDocument());
            if (invoice != null) {
                return of(invoice);
            }
        } else if (name.equals(CREDIT_NOTE + " CreditNote")) {
            CreditNoteType note = UBL21Marshaller.creditNote().read(root.getOwnerDocument());
            if (note != null) {
                return of(note);
            }
        } else {
            throw new RefusedException("file", root.getNodeName(), "must be an invoice or a credit note in UBL 2.1");
        }
        throw new RefusedException("file", root.getLocalName(), "does not keep to the schema of UBL 2.1");
    }

    private static Document dom(byte[] bytes) {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
            factory.setNamespaceAware(true);
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            factory.setXIncludeAware(false);
            factory.setExpandEntityReferences(false);
            var builder = factory.newDocumentBuilder();
            builder.setErrorHandler(new Silent());
            return builder.parse(new ByteArrayInputStream(bytes));
        } catch (SAXException e) {
            boolean doctype = e.getMessage() != null && e.getMessage().contains("DOCTYPE");
            throw new RefusedException(
                    "file",
                    "",
                    doctype
                            ? "has a document type declaration, which no invoice needs; nothing of it was read"
                            : "cannot be read as XML: " + e.getMessage());
        } catch (IOException e) {
            throw new RefusedException("file", "", "cannot be read as XML: its characters are not what it says");
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What reads an invoice descends into it: a file of elements within elements is refused before that. */
    private static void refuseDepth(byte[] bytes) {
        XMLInputFactory factory = XMLInputFactory.newFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try {
            XMLStreamReader reader = factory.createXMLStreamReader(new ByteArrayInputStream(bytes));
            int depth = 0;
            while (reader.hasNext()) {
                int event = reader.next();
                depth += event == XMLStreamConstants.START_ELEMENT
                        ? 1
                        : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
                if (depth > DEEPEST) {
                    throw new RefusedException(
                            "file", "", "has elements within elements " + DEEPEST + " deep, which no invoice has");
                }
            }
        } catch (XMLStreamException e) {
            // What is wrong with it is told by the parser that reads it next.
            return;
        }
    }

    /** The parser would print to the console what the caller is told anyway. */
    private static final class Silent implements ErrorHandler {
        @Override
        public void warning(SAXParseException e) {
            // Nothing is lost by a warning.
        }

        @Override
        public void error(SAXParseException e) throws SAXException {
            throw e;
        }

        @Override
        public void fatalError(SAXParseException e) throws SAXException {
            throw e;
        }
    }

    private static UblSource of(InvoiceType i) {
        var period = i.hasInvoicePeriodEntries() ? i.getInvoicePeriodAtIndex(0) : null;
        var delivery = i.hasDeliveryEntries() ? i.getDeliveryAtIndex(0) : null;
        return new UblSource(
                false,
                i.getIDValue(),
                i.getIssueDateValueLocal(),
                i.getDocumentCurrencyCodeValue(),
                i.getAccountingSupplierParty() == null
                        ? null
                        : i.getAccountingSupplierParty().getParty(),
                i.getAccountingCustomerParty() == null
                        ? null
                        : i.getAccountingCustomerParty().getParty(),
                new SourceMatter(
                        i.getOrderReference() == null
                                ? null
                                : i.getOrderReference().getIDValue(),
                        i.hasProjectReferenceEntries()
                                ? i.getProjectReferenceAtIndex(0).getIDValue()
                                : null,
                        i.hasNoteEntries() ? i.getNoteAtIndex(0).getValue() : null,
                        period != null && period.getStartDateValueLocal() != null
                                ? period.getStartDateValueLocal()
                                : delivery == null ? null : delivery.getActualDeliveryDateValueLocal(),
                        period == null ? null : period.getEndDateValueLocal(),
                        i.getDueDateValueLocal()),
                i.getInvoiceLine().stream()
                        .map(l -> new SourceLine(
                                l.getInvoicedQuantity(),
                                l.getLineExtensionAmountValue(),
                                l.getAllowanceCharge(),
                                l.getItem(),
                                l.getPrice()))
                        .toList(),
                i.getAllowanceCharge(),
                i.getTaxTotal(),
                i.getLegalMonetaryTotal());
    }

    private static UblSource of(CreditNoteType c) {
        return new UblSource(
                true,
                c.getIDValue(),
                c.getIssueDateValueLocal(),
                c.getDocumentCurrencyCodeValue(),
                c.getAccountingSupplierParty() == null
                        ? null
                        : c.getAccountingSupplierParty().getParty(),
                c.getAccountingCustomerParty() == null
                        ? null
                        : c.getAccountingCustomerParty().getParty(),
                new SourceMatter(
                        c.getOrderReference() == null
                                ? null
                                : c.getOrderReference().getIDValue(),
                        null,
                        c.hasNoteEntries() ? c.getNoteAtIndex(0).getValue() : null,
                        null,
                        null,
                        null),
                c.getCreditNoteLine().stream()
                        .map(l -> new SourceLine(
                                l.getCreditedQuantity(),
                                l.getLineExtensionAmountValue(),
                                l.getAllowanceCharge(),
                                l.getItem(),
                                l.getPrice()))
                        .toList(),
                c.getAllowanceCharge(),
                c.getTaxTotal(),
                c.getLegalMonetaryTotal());
    }
}
