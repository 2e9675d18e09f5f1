package quill.server.dispatch;

import quill.core.id.DocumentId;

/** Makes the papers of a kind of document that goes with letters, as it stands when the letter leaves. */
public interface PaperOf {
    /** Whether papers of this kind are made here. */
    boolean makes(Enclosed.Kind kind);

    /** The paper, as PDF. */
    byte[] make(Enclosed.Kind kind, DocumentId id);
}
