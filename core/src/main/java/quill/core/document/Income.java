package quill.core.document;

import java.util.Objects;
import org.joda.money.Money;
import quill.core.catalogue.Item;
import quill.core.tax.TaxCategory;

/**
 * A part of what a document brings in, without tax.
 *
 * @param tax by what the tax says of it
 * @param category of the business's own, such as Tuning; empty for none, as charges have none
 * @param net negative where it is taken back, or where returned parts outweigh what was sold
 */
public record Income(TaxCategory tax, String category, Money net) {
    /** Under which deposit invoices stand, and what deducts them: no income until the work is billed. */
    public static final String DEPOSITS = Item.DEPOSITS;

    /** Whether it is only received ahead. */
    public boolean isDeposit() {
        return category.equals(DEPOSITS);
    }

    /** No category is an empty one. */
    public Income {
        Objects.requireNonNull(tax, "tax");
        category = category == null ? "" : category;
    }
}
