package quill.server.dispatch;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.RefusedException;
import quill.core.letter.Channel;
import quill.core.letter.TextLength;
import quill.server.QuillSettings;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Phones;

/** Where and when a message goes: to the person it is for, or where a slip says, this once. */
@Component
class Destinations {
    private static final int FARTHEST = 366;

    /** A number of a range that no network gives to anybody; nothing goes there, it only stands in for one not typed yet. */
    private static final String NOBODY = "+447700900000";

    private final QuillSettings settings;
    private final BusinessService business;
    private final ClientsService clients;
    private final BusinessClock clock;

    Destinations(QuillSettings settings, BusinessService business, ClientsService clients, BusinessClock clock) {
        this.settings = settings;
        this.business = business;
        this.clients = clients;
        this.clock = clock;
    }

    /** The ways by which something can go here. */
    List<Channel> channels() {
        List<Channel> all = new ArrayList<>(List.of(Channel.MAIL));
        if (settings.texts().isSet()) {
            all.add(Channel.TEXT);
        }
        return all;
    }

    /** The address as it is kept, for the field that it can be typed over in; empty where there is none. */
    String usual(Client.Recipient recipient, Slip slip) {
        return slip.isText() ? recipient.phone() : recipient.email();
    }

    /** What stands in while none is typed, to look at what would go. */
    String standIn(Slip slip) {
        return slip.isText() ? NOBODY : business.business().email();
    }

    /**
     * Where it goes: an address of e-mail, or a number as E.164 has it.
     *
     * @throws RefusedException where there is none, it cannot be one, or there is no gateway for text messages
     */
    String of(Client client, Client.Recipient recipient, Slip slip) {
        String typed = slip.toOr(usual(recipient, slip));
        if (slip.isText()) {
            if (!settings.texts().isSet()) {
                throw new RefusedException(
                        "slip.channel", "text", "no gateway for text messages is set up; send it by mail");
            }
            if (typed.isBlank()) {
                throw new RefusedException("slip.to", "", "this client has no telephone number; write one");
            }
            return number("slip.to", typed, client);
        }
        if (typed.isEmpty()) {
            throw new RefusedException(
                    "client.email", "", "this client has no e-mail address; add one, or write one for this once");
        }
        return typed;
    }

    /** A telephone number as E.164 has it; one without a country is of the client's, else of the business's. */
    String number(String field, String typed, Client client) {
        String country = client.country();
        return Phones.read(field, typed, country.isEmpty() ? business.business().country() : country);
    }

    /** Keeps what was typed with the client, where the slip says so. */
    void keep(Client client, Slip slip, String to) {
        if (slip.keep() && slip.to() != null && !slip.to().isBlank()) {
            clients.keepAddress(client.id(), slip.isText() ? null : to, slip.isText() ? Phones.shown(to) : null);
        }
    }

    /** When it leaves; null for at once. @throws RefusedException for a moment that has passed, or is more than a year away */
    LocalDateTime leavesAt(Slip slip) {
        LocalDateTime at = slip.leavesAt();
        LocalDateTime now = LocalDateTime.now(clock);
        if (at != null && (!at.isAfter(now) || at.isAfter(now.plusDays(FARTHEST)))) {
            throw new RefusedException(
                    "slip.at",
                    slip.at(),
                    "must lie ahead, within a year; here it is "
                            + now.withSecond(0).withNano(0));
        }
        return at;
    }

    /** @throws RefusedException for a text in more parts than go as one */
    void checkLength(Slip slip, String text) {
        TextLength length = TextLength.of(text);
        if (slip.isText() && length.parts() > TextLength.MOST_PARTS) {
            throw new RefusedException(
                    "slip.line",
                    slip.line(),
                    "makes the text " + length.characters() + " characters long, in " + length.parts()
                            + " parts; at most " + TextLength.MOST_PARTS + " go as one");
        }
    }
}
