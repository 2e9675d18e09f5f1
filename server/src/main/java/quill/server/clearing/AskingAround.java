package quill.server.clearing;

import java.util.function.BooleanSupplier;
import org.springframework.stereotype.Service;
import quill.server.collections.Keeping;
import quill.server.collections.TakingFromSaved;
import quill.server.savedmethods.SavedMethods;

/** All that is asked of processors by itself, again and again. */
@Service
public class AskingAround {
    private final AccountReading reading;
    private final Keeping keeping;
    private final TakingFromSaved taking;
    private final SavedMethods methods;

    AskingAround(AccountReading reading, Keeping keeping, TakingFromSaved taking, SavedMethods methods) {
        this.reading = reading;
        this.keeping = keeping;
        this.taking = taking;
        this.methods = methods;
    }

    /** Asks about all that is not over, takes what was planned for today, and has forgotten what was removed. */
    public void all(BooleanSupplier stop) {
        reading.askAboutAll(stop);
        keeping.askAll(stop);
        taking.takeDue(stop);
        methods.forgetAll(stop);
    }
}
