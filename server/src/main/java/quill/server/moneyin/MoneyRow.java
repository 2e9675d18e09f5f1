package quill.server.moneyin;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import quill.core.id.ClientId;
import quill.server.common.Amount;

/**
 * A payment, or an attempt at one, in the index of what comes in.
 *
 * @param key of its record: payment-7, order-7 or planned-7
 * @param clientId null where somebody began to pay through a link, and nobody knows them yet
 * @param words how, and what is special about it
 */
record MoneyRow(
        String key,
        State state,
        @Schema(nullable = true) ClientId clientId,
        String clientName,
        Amount amount,
        String words,
        LocalDate on) {
    /** How it stands, in the order of the index. */
    enum State {
        /** The payer's bank took it back, and that is not decided. */
        CONTESTED("Contested"),
        /** To be taken on a day, as its client wants it. */
        PLANNED("Planned for a day"),
        /** A bank debit that is not certain. */
        ON_ITS_WAY("On its way"),
        /** Held on a card until the work is done. */
        HELD("Held on cards"),
        /** At the processor. */
        ARRIVED("At the card processor"),
        /** In a payout, or received by hand. */
        IN_THE_BANK("In the bank or in hand, lately"),
        WENT_BACK("Went back"),
        DECLINED("Declined: nothing was taken"),
        GIVEN_UP("Begun and not finished");

        private final String words;

        State(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    /** Rows of one state. @param sums by currency; none where no money came */
    record MoneyGroup(State state, String title, List<MoneyRow> rows, List<Amount> sums) {}
}
