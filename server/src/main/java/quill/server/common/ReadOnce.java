package quill.server.common;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.util.ConcurrentLruCache;

/**
 * What a transaction reads again and again, it reads once: a run of letters asks for the business and its settings
 * hundreds of times. Forgotten as soon as the transaction writes to the table, or locks anything: whoever waited for a
 * lock must see what was committed meanwhile. Without a transaction everything is read each time.
 */
public final class ReadOnce {
    private static final Object HERE = new Object();
    private static final Pattern WRITTEN = Pattern.compile(
            "^\\s*(?:INSERT\\s+INTO|MERGE\\s+INTO|UPDATE|DELETE\\s+FROM)\\s+(\\w+)", Pattern.CASE_INSENSITIVE);
    private static final String NONE = "";
    private static final String LOCKS = "*";
    /** Of one table; a transaction that goes through thousands of rows needs each of them once. */
    private static final int MOST_KNOWN = 1_000;
    /** Before the name of a table: what of it this transaction holds locked. */
    private static final String HELD = "held:";
    /** Nobody else's statement changes it. */
    private static final String NOTED = HELD + LOCKS;
    /** By statement: the table that it writes to, or what else it does. Those with lists stand here in each length. */
    private static final ConcurrentLruCache<String, String> WRITES = new ConcurrentLruCache<>(1_000, ReadOnce::writes);

    private ReadOnce() {}

    /**
     * What was read before in this transaction, or is read now.
     *
     * @param table from which it comes, in small letters
     * @param key what of it
     */
    @SuppressWarnings("unchecked")
    public static <T> T of(String table, Object key, Supplier<T> read) {
        if (!canKnow()) {
            return read.get();
        }
        Map<Object, Object> held = known(HELD + table);
        return held.containsKey(key) ? (T) held.get(key) : remembered(known(table), key, read);
    }

    @SuppressWarnings("unchecked")
    private static <T> T remembered(Map<Object, Object> known, Object key, Supplier<T> read) {
        if (known.containsKey(key)) {
            return (T) known.get(key);
        }
        T value = read.get();
        if (known.size() >= MOST_KNOWN) {
            known.clear();
        }
        known.put(key, value);
        return value;
    }

    /**
     * What was locked in this transaction, or is locked and read now. As it is nobody else's to change until the transaction
     * ends, it stays known when something else is locked.
     *
     * @param lock locks it and reads it, with all that belongs to it and is written under the same lock
     */
    public static <T> T locked(String table, Object key, Supplier<T> lock) {
        return canKnow() ? remembered(known(HELD + table), key, lock) : lock.get();
    }

    /** What was read with others in one statement, so that each of them is not read again by itself. */
    public static void know(String table, Object key, Object value) {
        if (canKnow()) {
            known(table).put(key, value);
        }
    }

    /** Whether it is noted for the first time in this transaction; without one always. */
    public static boolean isNew(Object noted) {
        if (!canKnow()) {
            return true;
        }
        Map<Object, Object> all = known(NOTED);
        if (all.size() >= MOST_KNOWN) {
            all.clear();
        }
        return all.put(noted, noted) == null;
    }

    private static boolean canKnow() {
        return TransactionSynchronizationManager.isSynchronizationActive()
                && TransactionSynchronizationManager.isActualTransactionActive();
    }

    private static Map<Object, Object> known(String table) {
        return known().computeIfAbsent(table, t -> new HashMap<>());
    }

    @SuppressWarnings("unchecked")
    private static Map<String, Map<Object, Object>> known() {
        Object bound = TransactionSynchronizationManager.getResource(HERE);
        if (bound == null) {
            bound = new HashMap<String, Map<Object, Object>>();
            TransactionSynchronizationManager.bindResource(HERE, bound);
            TransactionSynchronizationManager.registerSynchronization(new Unbinding(bound));
        }
        return (Map<String, Map<Object, Object>>) bound;
    }

    /** Told of every statement before it runs. */
    static void running(String sql) {
        String written = WRITES.get(sql);
        if (!written.equals(NONE)) {
            Object bound = TransactionSynchronizationManager.getResource(HERE);
            if (bound instanceof Map<?, ?> known) {
                if (written.equals(LOCKS)) {
                    known.keySet().removeIf(table -> !((String) table).startsWith(HELD));
                } else {
                    known.remove(written);
                    known.remove(HELD + written);
                }
            }
        }
    }

    private static String writes(String sql) {
        Matcher written = WRITTEN.matcher(sql);
        if (written.find()) {
            return written.group(1).toLowerCase(Locale.ROOT);
        }
        return sql.contains("FOR UPDATE") ? LOCKS : NONE;
    }

    /** Nothing outlives its transaction, and a transaction within another knows nothing of it. */
    private record Unbinding(Object known) implements TransactionSynchronization {
        @Override
        public void suspend() {
            TransactionSynchronizationManager.unbindResourceIfPossible(HERE);
        }

        @Override
        public void resume() {
            TransactionSynchronizationManager.bindResource(HERE, known);
        }

        @Override
        public void afterCompletion(int status) {
            TransactionSynchronizationManager.unbindResourceIfPossible(HERE);
        }
    }
}
