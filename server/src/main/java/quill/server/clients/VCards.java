package quill.server.clients;

import ezvcard.Ezvcard;
import ezvcard.VCard;
import ezvcard.VCardVersion;
import ezvcard.parameter.AddressType;
import ezvcard.property.Address;
import ezvcard.property.Email;
import ezvcard.property.Organization;
import ezvcard.property.StructuredName;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/**
 * Clients as cards (vCard, RFC 6350; older versions are read too). A card is read as a row of a table: an address of the
 * office comes before one of the home, a second one is where things are brought, and a second mail address is another
 * contact's; all of it is shown before it is taken.
 */
public final class VCards {
    private static final String HEAD = "BEGIN:VCARD";
    private static final List<String> COLUMNS = List.of(
            "Name",
            "Contact",
            "E-mail address",
            "Telephone",
            "Address",
            "Country",
            "Delivery address",
            "Another contact",
            "Another e-mail address",
            "Tags",
            "Private note");

    private VCards() {}

    /** The file as a table, where it is one of cards; else as it is. */
    public static byte[] asTable(byte[] file) {
        String text = new String(file, StandardCharsets.UTF_8);
        String plain = text.startsWith("\uFEFF") ? text.substring(1) : text;
        if (!plain.stripLeading().regionMatches(true, 0, HEAD, 0, HEAD.length())) {
            return file;
        }
        StringWriter out = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.printRecord(COLUMNS);
            for (VCard card : Ezvcard.parse(plain).all()) {
                csv.printRecord(row(card));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static List<String> row(VCard card) {
        Organization organization = card.getOrganization();
        String firm = organization == null || organization.getValues().isEmpty()
                ? ""
                : text(organization.getValues().get(0));
        String person = card.getFormattedName() == null
                ? name(card.getStructuredName())
                : text(card.getFormattedName().getValue());
        List<Address> addresses = new ArrayList<>(card.getAddresses());
        // The office before the home, and otherwise as the card has them.
        addresses.sort((a, b) -> Boolean.compare(isHome(a), isHome(b)));
        List<String> mails = card.getEmails().stream()
                .map(Email::getValue)
                .filter(Objects::nonNull)
                .toList();
        boolean firmFirst = !firm.isEmpty();
        return List.of(
                firmFirst ? firm : person,
                firmFirst && !person.equals(firm) ? person : "",
                mails.isEmpty() ? "" : mails.get(0),
                card.getTelephoneNumbers().isEmpty()
                        ? ""
                        : text(card.getTelephoneNumbers().get(0).getText()),
                addresses.isEmpty() ? "" : lines(addresses.get(0)),
                addresses.isEmpty() ? "" : text(addresses.get(0).getCountry()),
                addresses.size() < 2 ? "" : lines(addresses.get(1)),
                "",
                mails.size() < 2 ? "" : mails.get(1),
                card.getCategories() == null
                        ? ""
                        : String.join(", ", card.getCategories().getValues()),
                card.getNotes().isEmpty() ? "" : text(card.getNotes().get(0).getValue()));
    }

    private static boolean isHome(Address a) {
        return a.getTypes().contains(AddressType.HOME) && !a.getTypes().contains(AddressType.WORK);
    }

    private static String name(StructuredName name) {
        return name == null
                ? ""
                : Stream.of(name.getGiven(), name.getFamily())
                        .filter(Objects::nonNull)
                        .collect(Collectors.joining(" "));
    }

    private static String lines(Address a) {
        String town = Stream.of(a.getPostalCode(), a.getLocality(), a.getRegion())
                .filter(p -> p != null && !p.isBlank())
                .collect(Collectors.joining(" "));
        return Stream.of(a.getPoBox(), a.getExtendedAddress(), a.getStreetAddress(), town)
                .filter(p -> p != null && !p.isBlank())
                .collect(Collectors.joining("\n"));
    }

    private static String text(String value) {
        return value == null ? "" : value.strip();
    }

    /** Cards of these clients, version 4.0. */
    public static byte[] write(List<Client> clients) {
        List<VCard> cards = clients.stream().map(VCards::card).toList();
        return Ezvcard.write(cards)
                .version(VCardVersion.V4_0)
                .prodId(false)
                .go()
                .getBytes(StandardCharsets.UTF_8);
    }

    private static VCard card(Client c) {
        VCard card = new VCard();
        card.setFormattedName(c.contact().isEmpty() ? c.name() : c.contact());
        if (!c.contact().isEmpty() || c.more().kind() == ClientMore.Kind.BUSINESS) {
            card.setOrganization(c.name());
        }
        if (!c.email().isEmpty()) {
            card.addEmail(c.email());
        }
        c.more().contacts().stream()
                .map(Contact::email)
                .filter(e -> !e.isEmpty())
                .forEach(card::addEmail);
        if (!c.more().phone().isEmpty()) {
            card.addTelephoneNumber(c.more().phone());
        }
        address(card, c.address(), c.country(), AddressType.WORK);
        address(card, c.more().delivery(), "", AddressType.PARCEL);
        if (!c.more().tags().isEmpty()) {
            card.setCategories(c.more().tags().toArray(String[]::new));
        }
        return card;
    }

    private static void address(VCard card, String lines, String country, AddressType type) {
        if (lines.isEmpty()) {
            return;
        }
        Address address = new Address();
        address.setStreetAddress(lines);
        address.setCountry(country.isEmpty() ? null : country);
        address.getTypes().add(type);
        card.addAddress(address);
    }
}
