package quill.server.processor;

/** Whether a processor is used. */
public enum ProcessorMode {
    /** No new order is opened. */
    OFF,
    /** Orders are opened for trial: no money moves, nothing is settled or booked. */
    TEST,
    /** For money. */
    ON
}
