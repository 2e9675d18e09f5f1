package quill.server.dispatch;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.function.Function;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import quill.server.common.Hashes;
import quill.server.common.TooOftenException;
import quill.server.common.Turns;

/**
 * Papers that were made, by the hash of what they say and of what made them. Making one takes the processor for a while,
 * so it has one place for strangers and one for the business and the outbox, each with a queue of a fixed length.
 */
@Component
class Papers {
    /** Changed whenever fonts or the renderer change: what was kept before is made anew. */
    private static final String RENDERER = "openhtmltopdf 1.1.65, fonts 2";

    private static final int MOST_BYTES = 32 * 1024 * 1024;
    private static final int MOST_WAITING = 20;
    private static final Duration PATIENCE = Duration.ofSeconds(30);

    private final Cache<String, byte[]> made = Caffeine.newBuilder()
            .maximumWeight(MOST_BYTES)
            .weigher((String key, byte[] paper) -> paper.length)
            .build();
    private final Turns strangers = new Turns(1, MOST_WAITING, PATIENCE);
    private final Turns business = new Turns(1, MOST_WAITING, PATIENCE);

    /** For whom a paper is made. */
    enum Reader {
        STRANGER,
        BUSINESS
    }

    /** The paper of this text: kept, or made now. @throws TooOftenException where too many wait for one */
    byte[] of(String html, Reader reader, Function<String, byte[]> making) {
        String key = Hashes.of(RENDERER + "\n" + html);
        byte[] kept = made.getIfPresent(key);
        return kept != null
                ? kept
                : inTurn(reader == Reader.STRANGER ? strangers : business, () -> {
                    byte[] meanwhile = made.getIfPresent(key);
                    if (meanwhile != null) {
                        return meanwhile;
                    }
                    byte[] paper = making.apply(html);
                    made.put(key, paper);
                    return paper;
                });
    }

    private static byte[] inTurn(Turns turns, Supplier<byte[]> work) {
        if (!turns.take()) {
            throw new TooOftenException("Too many papers are asked for just now. Wait a moment and try again.");
        }
        try {
            return work.get();
        } finally {
            turns.giveBack();
        }
    }
}
