package quill.server.common;

/** What only the person with the passphrase may change. */
public interface Proof {
    /**
     * Uses up the proof that this session gave last, and notes the change.
     *
     * @param what is changed, for the log: {@code bank account}
     * @throws quill.core.RefusedException naming {@code passphrase} where none was given within the last minutes
     */
    void require(String what);
}
