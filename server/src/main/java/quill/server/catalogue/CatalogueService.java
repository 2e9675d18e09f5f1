package quill.server.catalogue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.LongSupplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.catalogue.Item;
import quill.core.catalogue.ItemReading;
import quill.core.catalogue.TypedBundle;
import quill.core.catalogue.TypedItem;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.money.Amounts;
import quill.core.tax.Tax;
import quill.server.business.BusinessService;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Findable;
import quill.server.common.NotFoundException;
import quill.server.common.OneSnapshot;
import quill.server.common.Texts;

/** The catalogue: what is sold again and again, and bundles of it. */
@Service
public class CatalogueService {
    private static final int MOST_CHOICES = 12;
    private final ItemRepository items;
    private final Bundles bundles;
    private final Stock stock;
    private final BusinessService business;
    private final Changes changes;

    CatalogueService(ItemRepository items, Bundles bundles, Stock stock, BusinessService business, Changes changes) {
        this.items = items;
        this.bundles = bundles;
        this.stock = stock;
        this.business = business;
        this.changes = changes;
    }

    /** The taxes that an item may bear: those still offered. */
    Map<String, Tax> taxes() {
        Set<String> retired = business.retiredTaxes();
        Map<String, Tax> offered = new LinkedHashMap<>(business.taxes());
        offered.keySet().removeAll(retired);
        return offered;
    }

    StoredItem item(long id) {
        return items.find(id).orElseThrow(() -> new NotFoundException("There is no item " + id + "."));
    }

    /** Keeps a new one. @return its id @throws RefusedException with every field that cannot be read */
    @Transactional
    public long make(TypedItem typed) {
        return insert(read(typed));
    }

    /** Changes one. What was issued keeps its price. @throws ConflictException if it is another by now */
    @Transactional
    StoredItem change(long id, int version, TypedItem typed) {
        StoredItem before = item(id);
        update(before, version, read(typed));
        return item(id);
    }

    /** Takes a table's row in. @param before null for a new one */
    void take(StoredItem before, Item item) {
        if (before == null) {
            insert(item);
            return;
        }
        update(before, before.version(), item);
        if (before.retired()) {
            items.retire(before.id(), before.version() + 1, false);
        }
    }

    private long insert(Item item) {
        long id = coded(item, () -> items.insert(item));
        stock.counted(id, null, item.stock());
        changes.touch(Findable.ITEM, id);
        return id;
    }

    private void update(StoredItem before, int version, Item item) {
        if (coded(item, () -> (long) items.update(before.id(), version, item)) != 1) {
            throw new ConflictException(
                    "This item was changed in another window, or its count by an invoice. Look at it again.");
        }
        stock.counted(before.id(), before.item().stock(), item.stock());
        changes.touch(Findable.ITEM, before.id());
    }

    private static long coded(Item item, LongSupplier write) {
        try {
            return write.getAsLong();
        } catch (DuplicateKeyException e) {
            throw new RefusedException("code", item.code(), "another item has this code");
        }
    }

    private Item read(TypedItem typed) {
        ItemReading.Read read = ItemReading.read(typed, taxes());
        if (read.item() == null) {
            throw new RefusedException(read.problems());
        }
        Texts.refuseUnprintable(Map.of(
                "description",
                read.item().description(),
                "unit",
                read.item().unit(),
                "category",
                read.item().category()));
        return read.item();
    }

    /** Offers one no longer, or again. */
    @Transactional
    StoredItem retire(long id, int version, boolean retired) {
        item(id);
        if (items.retire(id, version, retired) != 1) {
            throw new ConflictException("This item was changed in another window. Look at it again.");
        }
        changes.touch(Findable.ITEM, id);
        return item(id);
    }

    /** How an item's count came about, newest first. */
    List<Stock.Movement> movements(long id) {
        return stock.of(id, 50);
    }

    /** Bundles with what they hold. */
    List<Bundles.Bundle> bundles() {
        return bundles.all();
    }

    /** Keeps a bundle. @param id 0 for a new one */
    @Transactional
    public long keep(long id, int version, TypedBundle typed) {
        long kept = bundles.keep(id, version, typed);
        changes.touch(Findable.BUNDLE, kept);
        return kept;
    }

    @Transactional
    void deleteBundle(long id, int version) {
        if (bundles.delete(id, version) != 1) {
            throw new ConflictException("This bundle was changed in another window. Look at it again.");
        }
        changes.touch(Findable.BUNDLE, id);
    }

    /** Items of a list's page. @param count of all that fit */
    record Page(List<StoredItem> items, int count) {}

    @OneSnapshot
    Page page(ItemRepository.Wanted wanted) {
        return new Page(items.page(wanted), items.count(wanted));
    }

    /** Categories of income that items have, by name. */
    List<String> categories() {
        return items.categories();
    }

    /** The same, each line that names no category of income under that of its item. */
    public TypedDraft categorised(TypedDraft typed) {
        return typed.categorised(items.categoriesOf(typed.lines().stream()
                .map(TypedLine::item)
                .filter(Objects::nonNull)
                .toList()));
    }

    /** All items, the retired ones too. */
    List<StoredItem> all() {
        return items.all();
    }

    /** Items by id. */
    Map<Long, StoredItem> some(Collection<Long> ids) {
        return items.some(ids).stream().collect(Collectors.toMap(StoredItem::id, Function.identity()));
    }

    /**
     * Something that can be written onto a sheet.
     *
     * @param name the item's description or the bundle's name
     * @param under what else helps to tell it from others
     * @param bundle whether it is a bundle
     * @param picture of an item, its hash; empty for none
     * @param lines as they would stand, with prices as programs write them; without taxes where lines begin with the
     *     usual one
     */
    public record LineChoice(
            long id, boolean bundle, String name, String under, String picture, List<TypedLine> lines) {}

    /** What an item or a bundle is called, and what else helps to tell it from others. */
    public record Named(String name, String under) {}

    /** One item by its name; empty where there is none that is offered. */
    public Optional<Named> offered(long id) {
        return items.find(id)
                .filter(s -> !s.retired())
                .map(s -> new Named(
                        s.item().description(),
                        Stream.concat(
                                        Stream.of(s.item().code()),
                                        s.item().prices().entrySet().stream()
                                                .map(p -> p.getKey() + " "
                                                        + Amounts.price(p.getValue(), CurrencyUnit.of(p.getKey()))))
                                .filter(t -> !t.isEmpty())
                                .collect(Collectors.joining(" · "))));
    }

    /** One bundle by its name. */
    public Optional<Named> bundle(long id) {
        return bundles.all().stream()
                .filter(b -> b.id() == id)
                .findFirst()
                .map(b -> new Named(b.name(), b.parts().size() + " lines"));
    }

    /** What fits what was typed, those that begin with it first: bundles, then items. */
    @Transactional(readOnly = true)
    public List<LineChoice> choices(String typed, CurrencyUnit currency) {
        String part = typed == null ? "" : typed.strip().toLowerCase(Locale.ROOT);
        Map<String, Tax> taxes = taxes();
        List<LineChoice> found = new ArrayList<>();
        List<Bundles.Bundle> fitting = bundles.all().stream()
                .filter(b -> b.name().toLowerCase(Locale.ROOT).contains(part))
                .limit(MOST_CHOICES)
                .toList();
        Map<Long, StoredItem> parts = some(fitting.stream()
                .flatMap(b -> b.parts().stream())
                .map(Bundles.Part::item)
                .collect(Collectors.toSet()));
        fitting.forEach(b -> found.add(bundle(b, parts, currency, taxes)));
        items.page(new ItemRepository.Wanted(part, false, false, "best", 0, MOST_CHOICES))
                .forEach(i -> found.add(new LineChoice(
                        i.id(),
                        false,
                        i.item().description(),
                        under(i.item(), currency),
                        i.picture(),
                        List.of(line(i, BigDecimal.ONE, currency, taxes)))));
        return found;
    }

    private static LineChoice bundle(
            Bundles.Bundle b, Map<Long, StoredItem> parts, CurrencyUnit currency, Map<String, Tax> taxes) {
        return new LineChoice(
                b.id(),
                true,
                b.name(),
                b.parts().stream()
                        .map(p -> parts.get(p.item()).item().description())
                        .collect(Collectors.joining(", ")),
                "",
                b.parts().stream()
                        .map(p -> line(parts.get(p.item()), p.quantity(), currency, taxes))
                        .toList());
    }

    private static String under(Item i, CurrencyUnit currency) {
        return Stream.of(
                        i.code(),
                        i.prices().containsKey(currency.getCode()) ? "" : "no price in " + currency.getCode(),
                        i.isLow() ? "in stock: " + i.stock().toPlainString() : "")
                .filter(s -> !s.isEmpty())
                .collect(Collectors.joining(" · "));
    }

    private static TypedLine line(StoredItem s, BigDecimal quantity, CurrencyUnit currency, Map<String, Tax> taxes) {
        Item i = s.item();
        BigDecimal price = i.prices().get(currency.getCode());
        return new TypedLine(
                i.description(),
                quantity.toPlainString(),
                i.unit(),
                price == null ? "" : Amounts.price(price, currency),
                "",
                i.taxes().stream().filter(taxes::containsKey).toList(),
                s.id(),
                null,
                i.asksSerial() ? "" : null,
                null);
    }
}
