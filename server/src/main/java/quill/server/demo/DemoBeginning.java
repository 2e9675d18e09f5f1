package quill.server.demo;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.reminder.ReminderPlan;
import quill.core.tax.TaxRounding;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.business.DocumentSetting;
import quill.server.business.DocumentSettings;
import quill.server.business.Rates;
import quill.server.chasing.ReminderPlans;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.latefees.FeePolicies;
import quill.server.people.PeopleService;

/** What Larkmoor Pianos begins its year with. */
@Component
class DemoBeginning {
    private final PeopleService people;
    private final BusinessService business;
    private final DocumentSettings documents;
    private final Rates rates;
    private final ClientsService clients;
    private final DemoCatalogue catalogue;
    private final ReminderPlans plans;
    private final FeePolicies policies;

    DemoBeginning(
            PeopleService people,
            BusinessService business,
            DocumentSettings documents,
            Rates rates,
            ClientsService clients,
            DemoCatalogue catalogue,
            ReminderPlans plans,
            FeePolicies policies) {
        this.people = people;
        this.business = business;
        this.documents = documents;
        this.rates = rates;
        this.clients = clients;
        this.catalogue = catalogue;
        this.plans = plans;
        this.policies = policies;
    }

    /** @param clients by name @param taxes ids by rate, or by category */
    record Begun(Map<String, Client> clients, Map<String, String> taxes) {}

    Begun set() {
        people.makeOwner(DemoYear.EMAIL, DemoYear.OWNER, DemoYear.PASSPHRASE);
        business.setUp(new Business(
                "Larkmoor Pianos",
                "Tuning · Regulation · Restoration",
                "4 Ropewalk\nLarkmoor",
                "BE",
                "post@larkmoor.example",
                "BE 0204 117 063",
                true,
                "EUR",
                DemoYear.ZONE.getId(),
                new Business.TransferAccount("XX51 LARK 0000 0004 20", "LARKXX20"),
                new Business.Habits(
                        "{year}-{seq}",
                        "C-{year}-{seq}",
                        30,
                        TaxRounding.PER_TAX,
                        "Thank you for trusting me with it.",
                        false),
                1));
        // It keeps its books in English, though its country writes a comma.
        business.changeMark(".");
        String high = business.addTax(new BusinessService.TypedTax("VAT 21%", "21", "S", false, ""))
                .id();
        String low = business.addTax(new BusinessService.TypedTax("VAT 6%", "6", "S", false, ""))
                .id();
        Map<String, String> taxes = taxes(high, low);
        catalogue.fill(high, low);
        Map<String, Client> byName = new LinkedHashMap<>();
        for (String[] c : DemoScript.CLIENTS) {
            byName.put(c[0], clients.make(DemoScript.client(c)));
        }
        setUpChasing();
        return new Begun(byName, taxes);
    }

    /** The taxes that stand beside the two everyday ones, fields, coins and a rate. */
    private Map<String, String> taxes(String high, String low) {
        Map<String, String> taxes = new HashMap<>();
        taxes.put("21", high);
        taxes.put("6", low);
        taxes.put("E", tax("Exempt", "E", "Teaching is exempt from tax"));
        taxes.put("AE", tax("Reverse charge", "AE", "Reverse charge: the tax is owed by the client"));
        taxes.put("G", tax("Export", "G", "Export outside the Union"));
        documents.change(new DocumentSetting(
                "ledger",
                "",
                List.of("Instrument", "Serial number"),
                List.of(new DocumentSetting.Coin("EUR", "0.05")),
                0));
        rates.note(new Rates.Rate("GBP", "2026-09-01", "1.1620"));
        rates.note(new Rates.Rate("GBP", "2027-01-04", "1.1745"));
        return taxes;
    }

    private String tax(String name, String category, String reason) {
        return business.addTax(new BusinessService.TypedTax(name, "", category, false, reason))
                .id();
    }

    /** Reminders as usual; 1% once after a week of grace, by itself, at most 40 on an installment. */
    private void setUpChasing() {
        plans.change(ReminderPlan.TypedPlan.usual(), 0);
        policies.change(new FeePolicies.FeeSetting(
                new TypedLateFeePolicy("percent", "1%", "7", "once", "", "40.00", "20.00", false), "10", false, 0));
    }
}
