package quill.server.common;

import java.util.Optional;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import quill.core.money.DecimalMark;

/**
 * The decimal mark with which the numbers of the running request were typed: its header says so where a person typed
 * them in the desk. Without it they are plain decimals, as programs and clients' pages send them.
 */
public final class TypedMark {
    static final String HEADER = "Quill-Decimal-Mark";

    private TypedMark() {}

    /** Of the running request; a point outside of any. */
    public static DecimalMark current() {
        return Optional.ofNullable(RequestContextHolder.getRequestAttributes())
                .filter(ServletRequestAttributes.class::isInstance)
                .map(a -> ((ServletRequestAttributes) a).getRequest().getHeader(HEADER))
                .map(DecimalMark::of)
                .orElse(DecimalMark.POINT);
    }

    /** A typed number as plain decimals. */
    public static String plain(String typed) {
        return current().plain(typed);
    }
}
