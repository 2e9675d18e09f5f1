package quill.http;

/** Something that answers at addresses: the application or its stand-ins, in this process or in one of its own. */
@FunctionalInterface
public interface Site {
    /** The whole address of a path. */
    String url(String path);
}
