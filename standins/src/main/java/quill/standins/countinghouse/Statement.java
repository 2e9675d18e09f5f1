package quill.standins.countinghouse;

import java.io.StringWriter;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/**
 * One payout as a bank statement, ISO 20022 camt.053.001.08: what it was made of, each with its charges, and the payout itself,
 * between two balances of zero.
 */
final class Statement {
    private static final String NAMESPACE = "urn:iso:std:iso:20022:tech:xsd:camt.053.001.08";
    private final XMLStreamWriter xml;
    private final String currency;

    private Statement(XMLStreamWriter xml, String currency) {
        this.xml = xml;
        this.currency = currency;
    }

    static String of(Account.Payout payout, List<Account.Entry> entries) {
        StringWriter text = new StringWriter();
        try {
            XMLStreamWriter xml = XMLOutputFactory.newFactory().createXMLStreamWriter(text);
            new Statement(xml, payout.currency()).write(payout, entries);
            xml.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
        return text.toString();
    }

    private void write(Account.Payout payout, List<Account.Entry> entries) throws XMLStreamException {
        String made = payout.madeOn().atStartOfDay().truncatedTo(ChronoUnit.SECONDS) + ":00";
        xml.writeStartDocument("UTF-8", "1.0");
        xml.writeStartElement("Document");
        xml.writeDefaultNamespace(NAMESPACE);
        xml.writeStartElement("BkToCstmrStmt");
        xml.writeStartElement("GrpHdr");
        text("MsgId", fit(payout.id()));
        text("CreDtTm", made);
        xml.writeEndElement();
        xml.writeStartElement("Stmt");
        text("Id", fit(payout.id()));
        text("CreDtTm", made);
        open("Acct", "Id", "Othr");
        text("Id", "held-for-the-business");
        xml.writeEndElement();
        xml.writeEndElement();
        text("Ccy", currency);
        xml.writeEndElement();
        balance("OPBD", payout.madeOn());
        balance("CLBD", payout.madeOn());
        for (Account.Entry e : entries) {
            entry(e.subject(), e.kind(), e.amount().subtract(e.cost()), e.on(), e);
        }
        entry(payout.id(), "paid-out", payout.amount().negate(), payout.madeOn(), null);
        xml.writeEndElement();
        xml.writeEndElement();
        xml.writeEndElement();
        xml.writeEndDocument();
    }

    private void balance(String code, LocalDate day) throws XMLStreamException {
        open("Bal", "Tp", "CdOrPrtry");
        text("Cd", code);
        xml.writeEndElement();
        xml.writeEndElement();
        amount("Amt", BigDecimal.ZERO);
        text("CdtDbtInd", "CRDT");
        day("Dt", day);
        xml.writeEndElement();
    }

    private void entry(String reference, String kind, BigDecimal net, LocalDate day, Account.Entry whole)
            throws XMLStreamException {
        xml.writeStartElement("Ntry");
        amount("Amt", net.abs());
        text("CdtDbtInd", net.signum() < 0 ? "DBIT" : "CRDT");
        open("Sts");
        text("Cd", "BOOK");
        xml.writeEndElement();
        day("BookgDt", day);
        day("ValDt", day);
        text("AcctSvcrRef", fit(reference));
        open("BkTxCd", "Prtry");
        text("Cd", kind);
        xml.writeEndElement();
        xml.writeEndElement();
        if (whole != null && whole.cost().signum() > 0) {
            open("Chrgs", "Rcrd");
            amount("Amt", whole.cost());
            text("CdtDbtInd", "DBIT");
            text("ChrgInclInd", "true");
            xml.writeEndElement();
            xml.writeEndElement();
        }
        xml.writeEndElement();
    }

    private void open(String... names) throws XMLStreamException {
        for (String name : names) {
            xml.writeStartElement(name);
        }
    }

    private void day(String name, LocalDate day) throws XMLStreamException {
        xml.writeStartElement(name);
        text("Dt", day.toString());
        xml.writeEndElement();
    }

    private void amount(String name, BigDecimal sum) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeAttribute("Ccy", currency);
        xml.writeCharacters(Sums.plain(sum, currency));
        xml.writeEndElement();
    }

    private void text(String name, String value) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(value);
        xml.writeEndElement();
    }

    /** References of the standard have at most 35 characters. */
    private static String fit(String id) {
        String plain = id.replace("-", "");
        return plain.substring(0, Math.min(35, plain.length()));
    }
}
