package quill.core.catalogue;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.DecimalMark;
import quill.core.money.TypedNumber;

/** Several lines that are written at once, as typed. */
public record TypedBundle(String name, List<BundlePart> parts) {
    private static final int MAX_NAME = 120;
    private static final int MAX_PARTS = 100;
    private static final int DECIMALS = 6;

    /** Missing parts are none. */
    public TypedBundle {
        parts = parts == null ? List.of() : List.copyOf(parts);
    }

    /** One line of it. @param item id of the item @param quantity as typed */
    public record BundlePart(long item, String quantity) {}

    /** The same with its numbers as programs write them. @param mark with which they were typed */
    public TypedBundle plain(DecimalMark mark) {
        return new TypedBundle(
                name,
                parts.stream()
                        .map(p -> new BundlePart(p.item, mark.plain(p.quantity)))
                        .toList());
    }

    /** Its quantities, in order. @throws RefusedException with all that is wrong */
    public List<BigDecimal> quantities() {
        List<Problem> problems = new ArrayList<>();
        String plain = name == null ? "" : name.strip();
        if (plain.isEmpty()) {
            problems.add(new Problem("name", "", "give the bundle a name by which you find it"));
        }
        if (plain.length() > MAX_NAME) {
            problems.add(new Problem("name", plain, "at most " + MAX_NAME + " characters are allowed"));
        }
        if (parts.isEmpty() || parts.size() > MAX_PARTS) {
            problems.add(new Problem(
                    "parts", String.valueOf(parts.size()), "a bundle has from 1 to " + MAX_PARTS + " lines"));
        }
        List<BigDecimal> quantities = new ArrayList<>();
        for (int i = 0; i < Math.min(parts.size(), MAX_PARTS); i++) {
            quantities.add(
                    TypedNumber.read("parts[" + i + "].quantity", parts.get(i).quantity(), DECIMALS, true, problems));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return quantities;
    }
}
