package quill.server.catalogue;

import io.swagger.v3.oas.annotations.media.Schema;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.catalogue.Item;
import quill.core.catalogue.TypedBundle;
import quill.core.catalogue.TypedItem;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.money.DecimalMark;
import quill.core.money.TypedNumber;
import quill.server.business.BusinessService;
import quill.server.common.Csv;
import quill.server.common.Held;
import quill.server.common.OneSnapshot;
import quill.server.common.TypedMark;
import quill.server.tables.TableImport;

/** The catalogue, over HTTP. */
@RestController
@RequestMapping("/api/catalogue")
class CatalogueController {
    private static final int PAGE = 60;
    private static final List<String> SORTS = List.of("description", "code", "stock");
    private final CatalogueService service;
    private final TableImport tables;
    private final BusinessService business;
    private final KeptExtras extras;
    private final OwnUnits units;
    private final Held held;

    CatalogueController(
            CatalogueService service,
            TableImport tables,
            BusinessService business,
            KeptExtras extras,
            OwnUnits units,
            Held held) {
        this.units = units;
        this.held = held;
        this.extras = extras;
        this.service = service;
        this.tables = tables;
        this.business = business;
    }

    /** An item. @param typed with its numbers as programs write them @param picture its hash; empty for none @param low whether few are left */
    record ItemView(long id, TypedItem typed, String picture, boolean low, boolean retired, int version) {
        static ItemView of(StoredItem s) {
            Item i = s.item();
            Map<String, String> prices = new TreeMap<>();
            i.prices().forEach((c, p) -> prices.put(c, Amounts.price(p, CurrencyUnit.of(c))));
            return new ItemView(
                    s.id(),
                    new TypedItem(
                            i.code(),
                            i.description(),
                            i.unit(),
                            prices,
                            i.taxes(),
                            i.category(),
                            i.asksSerial(),
                            i.stock() == null ? "" : i.stock().toPlainString(),
                            i.warnBelow() == null ? "" : i.warnBelow().toPlainString()),
                    s.picture(),
                    i.isLow(),
                    s.retired(),
                    s.version());
        }
    }

    /** @param count of all that fit @param more where the next page begins, or null */
    record ItemPage(
            List<ItemView> rows,
            int count,
            @Schema(nullable = true) Integer more) {}

    /** @param invoiceId null where somebody counted */
    record StockRow(
            LocalDate on,
            Stock.Moved kind,
            String quantity,
            @Schema(nullable = true) DocumentId invoiceId,
            String who) {}

    record ItemDetails(ItemView item, List<StockRow> movements) {}

    record KeptItem(int version, TypedItem typed) {
        /** Where nothing was typed, every field is empty, and is refused as such. */
        KeptItem {
            typed = typed == null ? new TypedItem("", "", "", null, null, "", false, "", "") : typed;
        }
    }

    record RetiredItem(int version, boolean retired) {}

    record BundleLine(long item, String description, String quantity) {}

    record BundleView(long id, String name, List<BundleLine> parts, int version) {}

    record KeptBundle(int version, TypedBundle typed) {
        /** As above. */
        KeptBundle {
            typed = typed == null ? new TypedBundle("", null) : typed;
        }
    }

    /** A page of items. @param from how many of them to pass over @param sort description, code or stock */
    @GetMapping("/items")
    ItemPage items(
            @RequestParam(defaultValue = "") String filter,
            @RequestParam(defaultValue = "false") boolean retired,
            @RequestParam(defaultValue = "false") boolean low,
            @RequestParam(defaultValue = "description") String sort,
            @RequestParam(defaultValue = "0") int from) {
        ItemRepository.Wanted wanted = wanted(filter, retired, low, sort, Math.max(0, from), PAGE);
        var page = held.of(wanted, () -> service.page(wanted));
        int next = Math.max(0, from) + page.items().size();
        return new ItemPage(
                page.items().stream().map(ItemView::of).toList(), page.count(), next < page.count() ? next : null);
    }

    private static ItemRepository.Wanted wanted(
            String filter, boolean retired, boolean low, String sort, int from, int most) {
        if (!SORTS.contains(sort)) {
            throw new RefusedException("sort", sort, "must be one of " + SORTS);
        }
        return new ItemRepository.Wanted(filter.strip().toLowerCase(Locale.ROOT), retired, low, sort, from, most);
    }

    @GetMapping("/items/{id}")
    @OneSnapshot
    ItemDetails item(@PathVariable long id) {
        return new ItemDetails(
                ItemView.of(service.item(id)),
                service.movements(id).stream()
                        .map(m -> new StockRow(m.on(), m.kind(), m.quantity().toPlainString(), m.invoiceId(), m.who()))
                        .toList());
    }

    @PostMapping("/items")
    ItemView make(@RequestBody TypedItem typed) {
        return ItemView.of(service.item(service.make(typed.plain(TypedMark.current()))));
    }

    @PutMapping("/items/{id}")
    ItemView change(@PathVariable long id, @RequestBody KeptItem kept) {
        return ItemView.of(service.change(id, kept.version(), kept.typed().plain(TypedMark.current())));
    }

    @PutMapping("/items/{id}/retired")
    ItemView retire(@PathVariable long id, @RequestBody RetiredItem kept) {
        return ItemView.of(service.retire(id, kept.version(), kept.retired()));
    }

    /** What can be written onto a sheet: items and bundles that fit what was typed. @param currency of the prices */
    @GetMapping("/choices")
    @OneSnapshot
    List<CatalogueService.LineChoice> choices(
            @RequestParam(defaultValue = "") String find, @RequestParam(required = false) String currency) {
        CurrencyUnit own = business.business().currencyUnit();
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit asked = currency == null ? own : TypedNumber.currency("currency", currency, problems);
        if (asked == null) {
            throw new RefusedException(problems);
        }
        return service.choices(find, asked);
    }

    @GetMapping("/extras")
    List<KeptExtras.KeptExtra> extras() {
        return extras.all();
    }

    @PostMapping("/extras")
    void keepExtra(@RequestBody KeptExtras.KeptExtra typed) {
        extras.keep(new KeptExtras.KeptExtra(
                0, typed.charge(), typed.description(), plainExtent(typed.amount()), typed.taxes()));
    }

    @DeleteMapping("/extras/{id}")
    void forgetExtra(@PathVariable long id) {
        extras.forget(id);
    }

    /** Categories of income in use, to choose from. */
    @GetMapping("/categories")
    List<String> categories() {
        return service.categories();
    }

    @GetMapping("/units")
    List<OwnUnits.OwnUnit> units() {
        return units.all();
    }

    @PostMapping("/units")
    void keepUnit(@RequestBody OwnUnits.OwnUnit typed) {
        units.keep(typed);
    }

    @DeleteMapping("/units/{name}")
    void forgetUnit(@PathVariable String name) {
        units.forget(name);
    }

    private static String plainExtent(String amount) {
        String text = amount == null ? "" : amount.strip();
        return TypedNumber.isPercent(text)
                ? TypedMark.plain(text.substring(0, text.length() - 1).strip()) + "%"
                : TypedMark.plain(text);
    }

    @GetMapping("/bundles")
    @OneSnapshot
    List<BundleView> bundles() {
        List<Bundles.Bundle> all = service.bundles();
        Map<Long, StoredItem> items = service.some(all.stream()
                .flatMap(b -> b.parts().stream())
                .map(Bundles.Part::item)
                .collect(Collectors.toSet()));
        return all.stream()
                .map(b -> new BundleView(
                        b.id(),
                        b.name(),
                        b.parts().stream()
                                .map(p -> new BundleLine(
                                        p.item(),
                                        items.get(p.item()).item().description(),
                                        p.quantity().toPlainString()))
                                .toList(),
                        b.version()))
                .toList();
    }

    @PostMapping("/bundles")
    long makeBundle(@RequestBody TypedBundle typed) {
        return service.keep(0, 0, typed.plain(TypedMark.current()));
    }

    @PutMapping("/bundles/{id}")
    long changeBundle(@PathVariable long id, @RequestBody KeptBundle kept) {
        return service.keep(id, kept.version(), kept.typed().plain(TypedMark.current()));
    }

    @DeleteMapping("/bundles/{id}")
    void deleteBundle(@PathVariable long id, @RequestParam int version) {
        service.deleteBundle(id, version);
    }

    /** Exactly the items that a list shows, as {@link #table} reads them again. */
    @GetMapping("/items.csv")
    @OneSnapshot
    ResponseEntity<byte[]> csv(
            @RequestParam(defaultValue = "") String filter,
            @RequestParam(defaultValue = "false") boolean retired,
            @RequestParam(defaultValue = "false") boolean low,
            @RequestParam(defaultValue = "description") String sort) {
        List<StoredItem> shown = service.page(wanted(filter, retired, low, sort, 0, Integer.MAX_VALUE))
                .items();
        return Csv.file("catalogue.csv", table(shown).rows(shown));
    }

    private ItemTable table(List<StoredItem> all) {
        return new ItemTable(service, business.business().currencyUnit(), all);
    }

    /** Shows what a table of items would do, or does it. */
    @PostMapping(path = "/table", consumes = "multipart/form-data")
    TableImport.TablePlan table(@RequestPart("file") MultipartFile file, @RequestPart("how") TableImport.How how)
            throws IOException {
        DecimalMark usual = DecimalMark.of(Objects.requireNonNullElse(business.mark(), "."));
        return tables.read(file.getBytes(), how, () -> table(service.all()), usual);
    }
}
