package quill.server.clients;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import quill.core.Problem;
import quill.core.money.TypedNumber;
import quill.server.common.Texts;

/**
 * What is known of a client beside name, address and taxes, all of it optional.
 *
 * @param kind whether it is a business or a consumer
 * @param number by which the business knows it
 * @param delivery where things are brought, if it is not the address
 * @param currency ISO 4217 code of its invoices; empty for the business's own
 * @param daysToPay its own terms; null for the business's
 * @param schedule id of the kept schedule that its invoices begin with; null for the usual one
 * @param taxes ids of the taxes that its lines begin with; empty for what they begin with anyway
 * @param contacts others than the one who gets the invoices
 * @param notes for the business only
 */
public record ClientMore(
        Kind kind,
        String number,
        String phone,
        String delivery,
        String currency,
        @Schema(nullable = true) Integer daysToPay,
        @Schema(nullable = true) Long schedule,
        List<String> taxes,
        List<Contact> contacts,
        String notes,
        List<String> tags) {
    private static final int MOST_DAYS = 3650;
    private static final int MOST_CONTACTS = 20;
    private static final int MOST_TAGS = 20;
    private static final int MOST_TAXES = 8;
    private static final int LONGEST_ID = 40;

    /** Who buys. */
    public enum Kind {
        BUSINESS,
        CONSUMER
    }

    /** Nothing more is known. */
    public static final ClientMore NOTHING =
            new ClientMore(Kind.BUSINESS, "", "", "", "", null, null, List.of(), List.of(), "", List.of());

    /** Missing lists are empty. */
    public ClientMore {
        kind = kind == null ? Kind.BUSINESS : kind;
        taxes = taxes == null ? List.of() : List.copyOf(taxes);
        contacts = contacts == null ? List.of() : List.copyOf(contacts);
        tags = tags == null ? List.of() : List.copyOf(tags);
    }

    /** The same with these other contacts. */
    public ClientMore with(List<Contact> others) {
        return new ClientMore(kind, number, phone, delivery, currency, daysToPay, schedule, taxes, others, notes, tags);
    }

    /** The same with another telephone number. */
    ClientMore withPhone(String other) {
        return new ClientMore(
                kind, number, other, delivery, currency, daysToPay, schedule, taxes, contacts, notes, tags);
    }

    ClientMore checked(List<Problem> problems) {
        String plainCurrency = currency == null ? "" : currency.strip();
        if (!plainCurrency.isEmpty()) {
            TypedNumber.currency("more.currency", plainCurrency, problems);
        }
        if (daysToPay != null && (daysToPay < 0 || daysToPay > MOST_DAYS)) {
            problems.add(new Problem("more.daysToPay", String.valueOf(daysToPay), "must be from 0 to 3,650"));
        }
        if (taxes.size() > MOST_TAXES || taxes.stream().anyMatch(t -> t.length() > LONGEST_ID)) {
            problems.add(new Problem("more.taxes", String.join(", ", taxes), "must be at most 8 of your taxes"));
        }
        if (contacts.size() > MOST_CONTACTS) {
            problems.add(new Problem("more.contacts", String.valueOf(contacts.size()), "at most 20 contacts"));
        }
        List<Contact> plainContacts = new ArrayList<>();
        for (int i = 0; i < contacts.size(); i++) {
            plainContacts.add(contacts.get(i).checked("more.contacts[" + i + "].", problems));
        }
        once("reminders", contacts.stream().filter(Contact::reminders).count(), problems);
        once("receipts", contacts.stream().filter(Contact::receipts).count(), problems);
        if (tags.size() > MOST_TAGS) {
            problems.add(new Problem("more.tags", String.valueOf(tags.size()), "at most 20 tags"));
        }
        return new ClientMore(
                kind,
                Texts.name("more.number", number, 40, false, problems),
                Texts.name("more.phone", phone, 40, false, problems),
                Texts.text("more.delivery", delivery, 500, false, problems),
                plainCurrency,
                daysToPay,
                schedule,
                taxes,
                plainContacts,
                Texts.text("more.notes", notes, 4000, false, problems),
                tags.stream()
                        .map(t -> Texts.name("more.tags", t, 40, false, problems))
                        .filter(t -> !t.isEmpty())
                        .distinct()
                        .toList());
    }

    private static void once(String what, long holders, List<Problem> problems) {
        if (holders > 1) {
            problems.add(new Problem("more.contacts", String.valueOf(holders), "only one contact gets the " + what));
        }
    }

    String searchable() {
        return number + " " + phone + " " + String.join(" ", tags) + " "
                + contacts.stream().map(Contact::searchable).collect(Collectors.joining(" "));
    }
}
