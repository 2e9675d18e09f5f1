package quill.core.id;

/**
 * Which one of a kind of things; a plain number wherever it travels or is kept.
 *
 * @param <T> the type itself: ids of one kind have an order, that in which their things came
 */
public interface Id<T extends Id<T>> extends Comparable<T> {
    /** The number. */
    long value();

    @Override
    default int compareTo(T other) {
        return Long.compare(value(), other.value());
    }
}
