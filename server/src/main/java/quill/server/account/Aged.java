package quill.server.account;

import java.util.Arrays;
import java.util.List;
import quill.core.ledger.Aging;
import quill.server.account.AccountController.Band;
import quill.server.common.Amount;

/** Aging, ready to be shown. */
final class Aged {
    private Aged() {}

    static List<Band> bands(Aging aging) {
        return Arrays.stream(Aging.Band.values())
                .map(b -> new Band(b.name(), b.words(), Amount.of(aging.in(b))))
                .toList();
    }
}
