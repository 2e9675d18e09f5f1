package quill.server.business;

import java.util.List;
import java.util.Set;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.tax.Tax;
import quill.server.common.Proof;
import quill.server.common.TypedMark;

/** Settings of the business, over HTTP. */
@RestController
@RequestMapping("/api/business")
class BusinessController {
    private final BusinessService service;
    private final DocumentSettings documents;
    private final Rates rates;
    private final KeptSchedules schedules;
    private final Logos logos;
    private final BankAccounts accounts;
    private final Proof proof;

    BusinessController(
            BusinessService service,
            DocumentSettings documents,
            Rates rates,
            KeptSchedules schedules,
            Logos logos,
            BankAccounts accounts,
            Proof proof) {
        this.accounts = accounts;
        this.logos = logos;
        this.schedules = schedules;
        this.proof = proof;
        this.service = service;
        this.documents = documents;
        this.rates = rates;
    }

    /** @param retired whether it is no longer offered */
    record TaxView(
            String id, String name, String rate, String category, boolean compound, String reason, boolean retired) {
        static TaxView of(Tax t, boolean retired) {
            return new TaxView(
                    t.id(),
                    t.name(),
                    t.rate().rate().toPlainString(),
                    t.category().name(),
                    t.compound(),
                    t.reason(),
                    retired);
        }
    }

    /** @param mark the decimal mark that the business types, {@code .} or {@code ,} @param logo its hash, or empty */
    record BusinessView(
            Business business,
            String mark,
            String logo,
            List<TaxView> taxes,
            DocumentSetting documents,
            List<Rates.Rate> rates,
            List<BankAccounts.BankAccount> accounts) {}

    record DecimalMarkTyped(String mark) {}

    record Retire(boolean retired) {}

    @GetMapping
    BusinessView show() {
        Set<String> retired = service.retiredTaxes();
        return new BusinessView(
                service.business(),
                service.mark(),
                logos.now(),
                service.taxes().values().stream()
                        .map(t -> TaxView.of(t, retired.contains(t.id())))
                        .toList(),
                documents.setting(),
                rates.all(),
                accounts.all());
    }

    @PutMapping
    Business change(@RequestBody Business business) {
        Business now = service.business();
        if (!same(now.account().iban(), business.account().iban())
                || !same(now.account().bic(), business.account().bic())) {
            business.checked();
            proof.require("bank account");
        } else if (!same(now.email(), business.email())) {
            business.checked();
            proof.require("e-mail address");
        }
        return service.change(business);
    }

    private static boolean same(String before, String after) {
        return before.equals(after == null ? "" : after.strip());
    }

    /** An account for another currency: like the usual one, it is changed by somebody who gives the passphrase again. */
    @PutMapping("/accounts")
    void keepAccount(@RequestBody BankAccounts.BankAccount account) {
        accounts.checked(account);
        proof.require("bank account");
        accounts.keep(account);
    }

    @DeleteMapping("/accounts/{currency}")
    void removeAccount(@PathVariable String currency) {
        proof.require("bank account");
        accounts.remove(currency);
    }

    @PostMapping("/taxes")
    TaxView addTax(@RequestBody BusinessService.TypedTax tax) {
        return TaxView.of(service.addTax(tax.plain(TypedMark.current())), false);
    }

    @PutMapping("/taxes/{id}/retired")
    void retire(@PathVariable String id, @RequestBody Retire retire) {
        service.retireTax(id, retire.retired());
    }

    /** Changes how numbers are read that are typed from now on. */
    @PutMapping("/decimal-mark")
    void changeMark(@RequestBody DecimalMarkTyped mark) {
        service.changeMark(mark.mark());
    }

    @PutMapping("/documents")
    DocumentSetting changeDocuments(@RequestBody DocumentSetting setting) {
        return documents.change(setting);
    }

    @PostMapping("/rates")
    List<Rates.Rate> noteRate(@RequestBody Rates.Rate rate) {
        rates.note(new Rates.Rate(rate.currency(), rate.fromOn(), TypedMark.plain(rate.rate())));
        return rates.all();
    }

    @GetMapping("/schedules")
    List<KeptSchedules.KeptSchedule> schedules() {
        return schedules.all();
    }

    @PostMapping("/schedules")
    long keepSchedule(@RequestBody KeptSchedules.TypedSchedule typed) {
        return schedules.keep(0, typed);
    }

    @PutMapping("/schedules/{id}")
    long changeSchedule(@PathVariable long id, @RequestBody KeptSchedules.TypedSchedule typed) {
        return schedules.keep(id, typed);
    }

    @DeleteMapping("/schedules/{id}")
    void deleteSchedule(@PathVariable long id) {
        schedules.delete(id);
    }
}
