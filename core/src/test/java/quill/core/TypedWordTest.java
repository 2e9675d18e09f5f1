package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;
import quill.core.letter.Channel;
import quill.core.pay.WayToPay;
import quill.core.reminder.ReminderStep.Tone;

public class TypedWordTest {
    @Test
    public void lettersOfAnySizeAreRead() {
        List<Problem> problems = new ArrayList<>();
        assertThat(TypedWord.read("way", " Text ", Channel.class, problems)).isEqualTo(Channel.TEXT);
        assertThat(problems).isEmpty();
    }

    @Test
    public void anotherWordIsToldAllThatThereAre() {
        List<Problem> problems = new ArrayList<>();
        assertThat(TypedWord.read("way", null, Channel.class, problems)).isNull();
        assertThat(TypedWord.read("tone", "STERN", Tone.class, problems)).isNull();
        assertThat(TypedWord.read("ways[0].way", "", WayToPay.class, problems)).isNull();
        assertThat(problems)
                .containsExactly(
                        new Problem("way", null, "must be MAIL or TEXT"),
                        new Problem("tone", "STERN", "must be FRIENDLY, FIRM or FINAL"),
                        new Problem(
                                "ways[0].way",
                                "",
                                "must be CARD, BANK_DEBIT, SATCHEL, HATBOX, TRANSFER, CASH or CHEQUE"));
    }
}
