package quill.server;

import java.net.InetSocketAddress;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import quill.http.Ports;

/** A port for each outside service of the tests, the same for as long as they run: an application that knows it serves them all. */
public final class OwnPort {
    private static final Map<String, Integer> CHOSEN = new ConcurrentHashMap<>();

    private OwnPort() {}

    /** @param service whose stand-in listens there */
    public static int of(String service) {
        return CHOSEN.computeIfAbsent(service, s -> Ports.free());
    }

    /** The same as an address to listen at. */
    public static InetSocketAddress at(String service) {
        return new InetSocketAddress("127.0.0.1", of(service));
    }
}
