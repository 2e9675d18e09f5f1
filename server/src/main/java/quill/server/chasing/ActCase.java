package quill.server.chasing;

import java.time.LocalDate;
import quill.core.acts.ActKey;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.server.common.ConflictException;
import quill.server.dispatch.Slip;

/** An act in hand: all that is particular to its kind. Whatever changes something runs under the client's lock. */
public interface ActCase {
    /** Does it in a day's run. */
    Chasing.Outcome perform();

    /** Its day came in a run while a person kept it back. */
    void passKeptBack();

    /**
     * Does it now, as a person wants it.
     *
     * @param key under which it was found; not its own where its day has passed
     * @param slip how a letter goes, this once, or null
     * @throws ConflictException where it cannot be done today
     */
    void doNow(ActKey key, Slip slip);

    /** Does without it for good. @throws RefusedException where that is not the way to do without it */
    void leaveOut(String why);

    /** Whether a person can have it done at once. */
    boolean canDoNow(LocalDate today);

    /** In the run's list and log. */
    String words();

    /** On a record. */
    String briefly();

    /** On whose record it is noted what a person decides about it; null for the client's only. */
    DocumentId notedOn();

    /** How stern it is; null where it is not. */
    String tone();

    /** By which way it goes; null where it goes by none. */
    Channel way();
}
