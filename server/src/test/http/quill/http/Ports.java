package quill.http;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Ports that nobody else takes in the meantime: below those that the system gives out by itself, and each process of the
 * tests begins at another place.
 */
public final class Ports {
    private static final int FIRST = 10_000;
    private static final int BLOCK = 100;
    private static final int BLOCKS = 200;
    private static final AtomicInteger NEXT =
            new AtomicInteger((int) (ProcessHandle.current().pid() * 97 % BLOCKS) * BLOCK);

    private Ports() {}

    /** One that is free just now. */
    public static int free() {
        while (true) {
            int port = FIRST + NEXT.getAndIncrement() % (BLOCK * BLOCKS);
            try (ServerSocket socket = new ServerSocket(port, 1, InetAddress.getByName("127.0.0.1"))) {
                return socket.getLocalPort();
            } catch (IOException e) {
                NEXT.incrementAndGet();
            }
        }
    }
}
