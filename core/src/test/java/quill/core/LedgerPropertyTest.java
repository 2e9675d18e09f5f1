package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.Test;

/** Whatever happens to what a client owes, in any order: debts, credit and postings say the same as plain numbers do. */
public class LedgerPropertyTest {
    private static final int STORIES = 400;

    @Test
    public void anyStoryLeavesWhatPlainNumbersSay() {
        Set<LedgerStory.Event> seen = EnumSet.noneOf(LedgerStory.Event.class);
        for (CurrencyUnit currency : List.of(CurrencyUnit.EUR, CurrencyUnit.JPY, CurrencyUnit.of("KWD"))) {
            for (int story = 0; story < STORIES; story++) {
                new LedgerStory(currency, new Random(story), seen).tell();
            }
        }
        assertThat(seen).containsExactlyInAnyOrder(LedgerStory.Event.values());
    }
}
