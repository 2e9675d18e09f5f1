package quill.server.dispatch;

import java.util.List;
import java.util.function.Supplier;
import quill.core.id.ClientId;
import quill.core.letter.LetterKind;
import quill.server.letters.LetterFacts;

/** What letters would be about if they were written today: real occasions from the books, to look at a wording with. */
public interface LetterCases {
    /** The most that are looked at. */
    int MOST = 50;

    /** Whether letters of this kind are written here. */
    boolean writes(LetterKind kind);

    /** The latest occasions first. @param clientId of one client only, or null */
    List<LetterCase> latest(LetterKind kind, ClientId clientId);

    /** An occasion. @param about says which, for people @param facts what the letter would say */
    record LetterCase(ClientId clientId, String about, Supplier<LetterFacts> facts) {}
}
