package quill.server.clients;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.money.DecimalMark;
import quill.core.table.ColumnKind;
import quill.server.common.Csv;
import quill.server.common.Texts;
import quill.server.tables.RowKind;

/**
 * Clients as a table, out and in. A row is about the client of its number or, without one, of its name; what the table
 * has no column for stays as it is.
 */
public final class ClientTable implements RowKind<ClientTable.Row> {
    private static final List<ColumnKind> KINDS = List.of(
            new ColumnKind(
                    "more.number", "Number", List.of("client no", "client number", "customer number", "no"), false),
            new ColumnKind("name", "Name", List.of("client", "company", "organisation", "customer"), true),
            new ColumnKind("more.kind", "Kind", List.of("type"), false),
            new ColumnKind(
                    "contact", "Contact for invoices", List.of("contact", "contact name", "contact person"), false),
            new ColumnKind("email", "E-mail address", List.of("email", "e mail", "mail"), false),
            new ColumnKind("more.phone", "Telephone", List.of("phone", "tel", "mobile"), false),
            new ColumnKind("address", "Address", List.of("postal address", "street"), false),
            new ColumnKind("country", "Country", List.of("country code"), false),
            new ColumnKind("more.delivery", "Delivery address", List.of("delivery", "shipping address"), false),
            new ColumnKind("taxNumber", "Tax number", List.of("vat number", "vat", "tax id"), false),
            new ColumnKind("more.currency", "Currency", List.of(), false),
            new ColumnKind("more.daysToPay", "Days to pay", List.of("payment terms", "terms"), false),
            new ColumnKind("contact2", "Another contact", List.of("second contact"), false),
            new ColumnKind("email2", "Another e-mail address", List.of("second email", "email 2"), false),
            new ColumnKind("more.tags", "Tags", List.of("labels", "groups"), false),
            new ColumnKind("more.notes", "Private note", List.of("notes", "note", "remarks"), false));

    private static final Map<String, String> COUNTRIES = Arrays.stream(Locale.getISOCountries())
            .collect(Collectors.toMap(
                    c -> plain(new Locale("", c).getDisplayCountry(Locale.ENGLISH)), c -> c, (first, again) -> first));

    private final ClientsService service;
    private final Map<String, Client> byNumber = new HashMap<>();
    private final Map<String, Client> byName = new HashMap<>();
    private final LocalDate today;

    /** @param before the client that is there already, or null */
    public record Row(Client before, Client client) {}

    /** Against the clients that are there now. */
    public ClientTable(ClientsService service) {
        this.service = service;
        this.today = service.today();
        for (Client c : service.all()) {
            if (!c.more().number().isEmpty()) {
                byNumber.putIfAbsent(plain(c.more().number()), c);
            }
            byName.putIfAbsent(plain(c.name()), c);
        }
    }

    private static String plain(String text) {
        return text.strip().toLowerCase(Locale.ROOT);
    }

    @Override
    public List<ColumnKind> columns() {
        return KINDS;
    }

    @Override
    public Read<Row> read(Map<String, String> cells, DecimalMark mark) {
        String number = plain(cells.getOrDefault("more.number", ""));
        Client before = number.isEmpty() ? byName.get(plain(cells.getOrDefault("name", ""))) : byNumber.get(number);
        Client was = before == null ? new Client(ClientId.NEW, "", "", "", "", "", 1) : before;
        List<Problem> problems = new ArrayList<>();
        Client typed = new Client(
                was.id(),
                cells.getOrDefault("name", was.name()),
                cells.getOrDefault("contact", was.contact()),
                cells.getOrDefault("email", was.email()),
                cells.getOrDefault("address", was.address()),
                cells.containsKey("country") ? country(cells.get("country")) : was.country(),
                cells.getOrDefault("taxNumber", was.taxNumber()),
                was.certificate(),
                was.exemptUntil(),
                more(cells, was.more(), problems),
                was.version());
        try {
            Client checked = typed.checked(before, today);
            return problems.isEmpty() ? new Read<>(new Row(before, checked), problems) : new Read<>(null, problems);
        } catch (RefusedException e) {
            e.problems().stream()
                    .map(p -> p.at(p.field()
                            .replaceFirst("more\\.contacts\\[\\d+]\\.(name|email)", "$12")
                            .replace("name2", "contact2")))
                    .forEach(problems::add);
            return new Read<>(null, problems);
        }
    }

    /** A country by its two letters, or by its name in English. */
    private static String country(String typed) {
        String text = typed.strip();
        return text.length() == 2 ? text : COUNTRIES.getOrDefault(plain(text), text);
    }

    private static ClientMore more(Map<String, String> cells, ClientMore was, List<Problem> problems) {
        return new ClientMore(
                kind(cells.get("more.kind"), was.kind(), problems),
                cells.getOrDefault("more.number", was.number()),
                cells.getOrDefault("more.phone", was.phone()),
                cells.getOrDefault("more.delivery", was.delivery()),
                cells.getOrDefault("more.currency", was.currency()).toUpperCase(Locale.ROOT),
                days(cells.get("more.daysToPay"), was.daysToPay(), problems),
                was.schedule(),
                was.taxes(),
                contacts(cells, was.contacts()),
                cells.getOrDefault("more.notes", was.notes()),
                cells.containsKey("more.tags")
                        ? Arrays.stream(cells.get("more.tags").split("[,;]"))
                                .map(String::strip)
                                .filter(t -> !t.isEmpty())
                                .toList()
                        : was.tags());
    }

    private static ClientMore.Kind kind(String typed, ClientMore.Kind was, List<Problem> problems) {
        if (typed == null || typed.isBlank()) {
            return was;
        }
        return switch (plain(typed)) {
            case "business", "company", "b" -> ClientMore.Kind.BUSINESS;
            case "consumer", "person", "private", "c" -> ClientMore.Kind.CONSUMER;
            default -> {
                problems.add(new Problem("more.kind", typed, "must be business or consumer"));
                yield was;
            }
        };
    }

    private static Integer days(String typed, Integer was, List<Problem> problems) {
        if (typed == null) {
            return was;
        }
        String text = typed.strip();
        if (text.isEmpty()) {
            return null;
        }
        if (!text.matches("\\d{1,4}")) {
            problems.add(new Problem("more.daysToPay", typed, "must be a number of days, such as 30"));
            return was;
        }
        return Integer.valueOf(text);
    }

    /** A second contact of the table stands first among the others; those that are there already stay. */
    private static List<Contact> contacts(Map<String, String> cells, List<Contact> was) {
        String name = cells.getOrDefault("contact2", "").strip();
        String email = cells.getOrDefault("email2", "").strip();
        boolean there = was.stream()
                .anyMatch(c -> c.email().equalsIgnoreCase(email)
                        && (name.isEmpty() || c.name().equals(name)));
        if ((name.isEmpty() && email.isEmpty()) || there) {
            return was;
        }
        List<Contact> all =
                new ArrayList<>(List.of(new Contact(name.isEmpty() ? email : name, email, "", false, false)));
        all.addAll(was);
        return all;
    }

    @Override
    public Map.Entry<String, String> key(Row row) {
        String number = row.client().more().number();
        return number.isEmpty() ? Map.entry("name", "  " + row.client().name()) : Map.entry("more.number", number);
    }

    @Override
    public Landing landing(Row row) {
        return row.before() == null ? Landing.NEW : row.before().equals(row.client()) ? Landing.SAME : Landing.CHANGED;
    }

    @Override
    public Map<String, String> shown(Row row) {
        Client c = row.client();
        ClientMore m = c.more();
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("more.number", m.number());
        shown.put("name", c.name());
        shown.put("more.kind", m.kind() == ClientMore.Kind.CONSUMER ? "consumer" : "business");
        shown.put("contact", c.contact());
        shown.put("email", c.email());
        shown.put("more.phone", m.phone());
        shown.put("address", c.address());
        shown.put("country", c.country());
        shown.put("more.delivery", m.delivery());
        shown.put("taxNumber", c.taxNumber());
        shown.put("more.currency", m.currency());
        shown.put("more.daysToPay", m.daysToPay() == null ? "" : m.daysToPay().toString());
        if (!m.contacts().isEmpty()) {
            shown.put("contact2", m.contacts().get(0).name());
            shown.put("email2", m.contacts().get(0).email());
        }
        shown.put("more.tags", String.join(", ", m.tags()));
        shown.put("more.notes", m.notes());
        return shown;
    }

    @Override
    public void store(List<Row> rows) {
        rows.forEach(r -> {
            if (r.before() == null) {
                service.make(r.client());
            } else {
                service.change(r.client());
            }
        });
    }

    /** These clients as rows below their heads, as {@link #read} reads them again. Line breaks in an address stay. */
    public List<List<String>> rows(List<Client> clients) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(KINDS.stream().map(ColumnKind::words).toList());
        for (Client c : clients) {
            Map<String, String> shown = shown(new Row(c, c));
            rows.add(KINDS.stream()
                    .map(k -> Csv.guarded(Texts.printable(shown.getOrDefault(k.name(), ""))))
                    .toList());
        }
        return rows;
    }
}
