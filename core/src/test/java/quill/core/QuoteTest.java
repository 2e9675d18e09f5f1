package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedOffer;
import quill.core.quote.Choices;
import quill.core.quote.OfferReading;

public class QuoteTest {
    private static final LocalDate ISSUED = LocalDate.of(2027, 3, 15);

    private static TypedLine line(String what, String choice) {
        return new TypedLine(what, "1", "", "10.00", "", List.of("none")).choose(choice);
    }

    private static final TypedDraft OFFERED = TypedDraft.in("EUR")
            .lines(List.of(line("Strings", null), line("Castors", "ticked"), line("Tuning", "unticked")))
            .build();

    @Test
    public void onlyOptionalLinesAreChosenAndEveryLineKeepsItsPlace() {
        assertThat(Choices.optional(OFFERED)).containsExactly(1, 2);
        assertThat(Choices.ticked(OFFERED)).containsExactly(1);
        TypedDraft chosen = Choices.chosen(Choices.choose(OFFERED, List.of(2)));
        assertThat(Choices.ticked(Choices.choose(OFFERED, List.of(2)))).containsExactly(2);
        assertThat(chosen.lines()).extracting(TypedLine::description).containsExactly("Strings", "", "Tuning");
        assertThat(Choices.optional(chosen)).isEmpty();
        assertThatThrownBy(() -> Choices.choose(OFFERED, List.of(0)))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("no line that can be chosen");
        assertThatThrownBy(() -> Choices.choose(OFFERED, List.of(7))).isInstanceOf(RefusedException.class);
    }

    @DataProvider
    public Object[][] days() {
        return new Object[][] {
            {"", "2027-04-14"}, {"30 Apr", "2027-04-30"}, {"+14", "2027-03-29"}, {"2027-03-15", "2027-03-15"},
        };
    }

    @Test(dataProvider = "days")
    public void aQuoteHoldsUntilADay(String typed, String day) {
        List<Problem> problems = new ArrayList<>();
        assertThat(OfferReading.validUntil(new TypedOffer(typed, ""), ISSUED, problems))
                .isEqualTo(day);
        assertThat(problems).isEmpty();
    }

    @DataProvider
    public Object[][] noDays() {
        return new Object[][] {{"14 Mar 2027"}, {"30 February"}, {"2090-01-01"}, {"soon"}};
    }

    @Test(dataProvider = "noDays")
    public void aDayThatIsNoneIsNamed(String typed) {
        List<Problem> problems = new ArrayList<>();
        assertThat(OfferReading.validUntil(new TypedOffer(typed, ""), ISSUED, problems))
                .isNull();
        assertThat(problems).extracting(Problem::field).containsExactly("offer.validUntil");
    }
}
