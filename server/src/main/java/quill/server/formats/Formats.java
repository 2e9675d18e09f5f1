package quill.server.formats;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oasis.names.specification.ubl.schema.xsd.commonaggregatecomponents_21.PartyType;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.document.Charge;
import quill.core.document.DocumentDiscount;
import quill.core.document.DocumentReckoning;
import quill.core.document.Extent;
import quill.core.document.Line;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.schedule.TypedTerm;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.creditnotes.CreditNote;
import quill.server.debts.Debts;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;

/** Open formats: issued documents out, an invoice in as a draft. */
@Service
public class Formats {
    private static final int DECIMALS = 6;
    private final InvoicesService invoices;
    private final Documents documents;
    private final Attachments attachments;
    private final Debts debts;
    private final BusinessService business;
    private final ClientsService clients;
    private final BusinessClock clock;

    Formats(
            InvoicesService invoices,
            Documents documents,
            Attachments attachments,
            Debts debts,
            BusinessService business,
            ClientsService clients,
            BusinessClock clock) {
        this.invoices = invoices;
        this.documents = documents;
        this.attachments = attachments;
        this.debts = debts;
        this.business = business;
        this.clients = clients;
        this.clock = clock;
    }

    /** A draft that was made from a file. @param said what the person should look at before issuing it */
    public record Imported(DocumentId draftId, List<String> said) {}

    /**
     * An issued invoice as UBL 2.1 following EN 16931.
     *
     * @throws RefusedException for what EN 16931 cannot carry, with every reason
     */
    public byte[] invoice(DocumentId id) {
        Document invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft is written as UBL once it is issued.");
        }
        if (invoice.voidedOn() != null) {
            throw new ConflictException("This invoice was voided; it is handed to nobody.");
        }
        List<UblDocument.Due> due = debts.of(id).stream()
                .filter(i -> !i.fee())
                .map(i -> new UblDocument.Due(i.dueOn(), i.note(), i.amount()))
                .toList();
        return UblWriting.write(new UblDocument(documents.issued(invoice), due, attachments.sentWith(id)));
    }

    /** A credit note as UBL 2.1 following EN 16931. @throws RefusedException as for an invoice */
    public byte[] creditNote(CreditNote note) {
        return UblWriting.write(new UblDocument(documents.issued(note.document()), List.of(), List.of()));
    }

    /**
     * Makes a draft from an invoice in UBL. Its taxes become the business's own of the same category and rate, its
     * buyer the client of the same tax number or name; a buyer who is not known yet is written down as a client.
     *
     * @throws RefusedException naming what cannot be taken
     */
    @Transactional
    public Imported importUbl(byte[] bytes) {
        UblSource source = UblSource.parse(bytes);
        UblReading.Read read = read(source);
        if (read.creditNote()) {
            throw new RefusedException("file", read.number(), "is a credit note; only an invoice becomes a draft");
        }
        Totals totals = DocumentReckoning.figures(read.body());
        List<String> said = new ArrayList<>(read.differences(totals));
        if (totals.total().isNegative()) {
            throw new RefusedException(
                    "file", Amounts.plain(totals.total()), "its total is below zero: that is a credit note");
        }
        Map<Tax, String> taxes = taxes(read);
        Set<String> retired = business.retiredTaxes();
        taxes.forEach((tax, id) -> {
            if (retired.contains(id)) {
                said.add(business.taxes().get(id).name() + " is retired; it stands on the lines that bear it.");
            }
        });
        if (!read.stated().rounding().isZero()) {
            said.add("The file rounds what is to be paid by "
                    + Amounts.grouped(read.stated().rounding())
                    + ". Here only what is paid in cash is rounded: choose that on the sheet where it is so.");
        }
        Client client = buyer(source, said);
        TypedDraft draft = draft(source, read, client, taxes, said);
        if (!read.body().prepaid().isZero()) {
            said.add(Amounts.grouped(read.body().prepaid())
                    + " was paid before: record it as a deposit of the client, then it can be deducted.");
        }
        return new Imported(invoices.begin(draft), said);
    }

    private static UblReading.Read read(UblSource source) {
        try {
            return UblReading.read(source);
        } catch (ArithmeticException | IllegalArgumentException e) {
            throw new RefusedException("file", "", "has a figure that no invoice can have: " + e.getMessage());
        }
    }

    /** The business's own tax for each of the file's: the same category and rate. */
    private Map<Tax, String> taxes(UblReading.Read read) {
        Map<String, Tax> own = business.taxes();
        List<Problem> problems = new ArrayList<>();
        Map<Tax, String> ids = Stream.of(
                        read.body().lines().stream().map(Line::taxes),
                        read.body().charges().stream().map(Charge::taxes),
                        read.body().discounts().stream().map(DocumentDiscount::taxes))
                .flatMap(sets -> sets)
                .flatMap(List::stream)
                .distinct()
                .collect(Collectors.toMap(t -> t, t -> id(t, own, problems)));
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return ids;
    }

    private static String id(Tax tax, Map<String, Tax> own, List<Problem> problems) {
        return own.values().stream()
                .filter(t -> t.category() == tax.category() && t.rate().equals(tax.rate()))
                .findFirst()
                .map(Tax::id)
                .orElseGet(() -> {
                    problems.add(new Problem(
                            "taxes",
                            tax.name(),
                            tax.category() == TaxCategory.O
                                    ? "is outside the scope of tax; add such a tax in Settings first"
                                    : "is none of your taxes; add it in Settings first"));
                    return "";
                });
    }

    private Client buyer(UblSource source, List<String> said) {
        Business own = business.business();
        String seller = name(source.seller());
        if (!seller.isEmpty() && !seller.equalsIgnoreCase(own.name())) {
            said.add("The file was written by " + seller + ", not by " + own.name() + ".");
        }
        PartyType buyer = source.buyer();
        String name = name(buyer);
        if (name.isEmpty()) {
            said.add("The file names no buyer; choose the client.");
            return null;
        }
        String number = number(buyer);
        Optional<Client> known = clients.all().stream()
                .filter(c -> c.name().equalsIgnoreCase(name)
                        || !number.isEmpty() && plain(c.taxNumber()).equals(plain(number)))
                .findFirst();
        if (known.isPresent()) {
            return known.get();
        }
        Client made = clients.make(new Client(
                ClientId.NEW,
                cut(name, 120),
                "",
                email(buyer),
                address(buyer),
                country(buyer),
                cut(number, 40),
                "",
                null,
                1));
        said.add(name + " is written down as a new client.");
        return made;
    }

    private static String plain(String number) {
        return number.replaceAll("[^A-Za-z0-9]", "").toUpperCase(Locale.ROOT);
    }

    private static String name(PartyType party) {
        if (party == null) {
            return "";
        }
        if (party.hasPartyLegalEntityEntries()
                && party.getPartyLegalEntityAtIndex(0).getRegistrationNameValue() != null) {
            return party.getPartyLegalEntityAtIndex(0)
                    .getRegistrationNameValue()
                    .strip();
        }
        return party.hasPartyNameEntries()
                ? Optional.ofNullable(party.getPartyNameAtIndex(0).getNameValue())
                        .orElse("")
                        .strip()
                : "";
    }

    private static String number(PartyType party) {
        return party.hasPartyTaxSchemeEntries()
                ? Optional.ofNullable(party.getPartyTaxSchemeAtIndex(0).getCompanyIDValue())
                        .orElse("")
                : "";
    }

    private static String email(PartyType party) {
        String contact = party.getContact() == null ? null : party.getContact().getElectronicMailValue();
        String endpoint = party.getEndpointID() != null
                        && "EM".equals(party.getEndpointID().getSchemeID())
                ? party.getEndpointIDValue()
                : null;
        String found = contact != null ? contact : endpoint == null ? "" : endpoint;
        List<Problem> problems = new ArrayList<>();
        String checked = Texts.email("email", found, false, problems);
        return problems.isEmpty() ? checked : "";
    }

    private static String address(PartyType party) {
        var a = party.getPostalAddress();
        if (a == null) {
            return "";
        }
        String city = Stream.of(a.getPostalZoneValue(), a.getCityNameValue())
                .filter(v -> v != null && !v.isBlank())
                .collect(Collectors.joining(" "));
        return cut(
                Stream.of(a.getStreetNameValue(), a.getAdditionalStreetNameValue(), city)
                        .filter(v -> v != null && !v.isBlank())
                        .collect(Collectors.joining("\n")),
                500);
    }

    private static String country(PartyType party) {
        var a = party.getPostalAddress();
        String code =
                a == null || a.getCountry() == null ? null : a.getCountry().getIdentificationCodeValue();
        return code != null && Texts.isCountry(code) ? code : "";
    }

    private static String cut(String text, int most) {
        return text.length() > most ? text.substring(0, most) : text;
    }

    private TypedDraft draft(
            UblSource source, UblReading.Read read, Client client, Map<Tax, String> taxes, List<String> said) {
        List<TypedLine> lines = new ArrayList<>();
        for (int i = 0; i < read.body().lines().size(); i++) {
            lines.add(line(read, i, taxes, said));
        }
        return TypedDraft.in(read.body().currency().getCode())
                .client(client == null ? null : client.id())
                .subject("as on " + cut(read.number() == null ? "" : read.number(), 100))
                .reference(cut(text(source.matter().order()), 200))
                .project(cut(text(source.matter().project()), 200))
                .supplyDate(
                        source.matter().suppliedOn() == null
                                ? clock.today().toString()
                                : source.matter().suppliedOn().toString())
                .supplyEnd(
                        source.matter().suppliedTo() == null
                                ? ""
                                : source.matter().suppliedTo().toString())
                .lines(lines)
                .discounts(read.body().discounts().stream()
                        .map(d -> extra(d, taxes))
                        .toList())
                .charges(
                        read.body().charges().stream().map(c -> extra(c, taxes)).toList())
                .prepaid(
                        read.body().prepaid().isZero()
                                ? ""
                                : Amounts.plain(read.body().prepaid()))
                .schedule(List.of(new TypedTerm(false, "rest", due(source, said))))
                .notes(cut(text(source.matter().note()), 4000))
                .build();
    }

    /** The day on which the file says it is due; the business's usual days where it says none, or one that has passed. */
    private String due(UblSource source, List<String> said) {
        String usual = String.valueOf(business.business().habits().daysToPay());
        LocalDate due = source.matter().dueOn();
        if (due == null) {
            return usual;
        }
        if (due.isBefore(clock.today())) {
            said.add("The file's due date, " + Texts.day(due) + ", has passed; it stands as " + usual
                    + " days after issue.");
            return usual;
        }
        return due.toString();
    }

    /** A quantity or price of more decimals than are kept makes the line 1 of its amount. */
    private static TypedLine line(UblReading.Read read, int place, Map<Tax, String> taxes, List<String> said) {
        Line line = read.body().lines().get(place);
        List<String> ids = line.taxes().stream().map(taxes::get).toList();
        String what = cut(line.description(), 500);
        String note = cut(line.note(), 500);
        if (decimals(line.quantity()) > DECIMALS || decimals(line.unitPrice()) > DECIMALS) {
            BigDecimal net = read.lineNets().get(place).getAmount();
            said.add("Line " + (place + 1) + " has more decimals than are kept; it stands as 1 of its amount.");
            String one = net.signum() < 0 ? "-1" : "1";
            return new TypedLine(what, one, "", net.abs().toPlainString(), "", ids, null, note, null, null);
        }
        String off = line.discount() instanceof Extent.OfAmount a ? Amounts.plain(a.amount()) : "";
        return new TypedLine(
                what,
                line.quantity().toPlainString(),
                line.unit(),
                line.unitPrice().toPlainString(),
                off,
                ids,
                null,
                note,
                null,
                null);
    }

    private static int decimals(BigDecimal value) {
        return Math.max(0, value.stripTrailingZeros().scale());
    }

    private static TypedExtra extra(DocumentDiscount d, Map<Tax, String> taxes) {
        return new TypedExtra(cut(d.reason(), 200), amount(d.extent()), ids(d.taxes(), taxes));
    }

    private static TypedExtra extra(Charge c, Map<Tax, String> taxes) {
        return new TypedExtra(cut(c.description(), 200), amount(c.extent()), ids(c.taxes(), taxes));
    }

    private static List<String> ids(List<Tax> set, Map<Tax, String> taxes) {
        return set.stream().map(taxes::get).toList();
    }

    private static String amount(Extent extent) {
        return extent instanceof Extent.OfAmount a ? Amounts.plain(a.amount()) : "";
    }

    private static String text(String text) {
        return text == null ? "" : text;
    }
}
