package quill.acceptance;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Predicate;

/**
 * Stands between the application and an outside service and hands every byte on, until an answer comes that fits: then
 * it does something first (kill the application, say) and the answer never arrives.
 */
final class Tap implements AutoCloseable {
    /** What to wait for in what came back so far, and what to do then. */
    record Trap(Predicate<String> answer, Runnable act) {}

    private final ServerSocket server;
    private final int target;
    private final AtomicReference<Trap> trap = new AtomicReference<>();

    Tap(int target) throws IOException {
        this.target = target;
        this.server = new ServerSocket(0, 50, InetAddress.getByName("127.0.0.1"));
        thread(this::accept);
    }

    int port() {
        return server.getLocalPort();
    }

    void set(Predicate<String> answer, Runnable act) {
        trap.set(new Trap(answer, act));
    }

    private void accept() {
        while (!server.isClosed()) {
            try {
                Socket near = server.accept();
                Socket far = new Socket("127.0.0.1", target);
                thread(() -> hand(near, far, false));
                thread(() -> hand(far, near, true));
            } catch (IOException e) {
                return;
            }
        }
    }

    private void hand(Socket from, Socket to, boolean answers) {
        StringBuilder seen = new StringBuilder();
        byte[] buffer = new byte[16_384];
        try (InputStream in = from.getInputStream();
                OutputStream out = to.getOutputStream()) {
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                seen.append(new String(buffer, 0, n, StandardCharsets.ISO_8859_1));
                Trap armed = trap.get();
                if (answers
                        && armed != null
                        && armed.answer().test(seen.toString())
                        && trap.compareAndSet(armed, null)) {
                    armed.act().run();
                    return;
                }
                out.write(buffer, 0, n);
                out.flush();
            }
        } catch (IOException e) {
            trap.getAndUpdate(t -> t); // The other side is gone: that is what these tests are about.
        }
    }

    private static void thread(Runnable run) {
        Thread thread = new Thread(run, "tap");
        thread.setDaemon(true);
        thread.start();
    }

    @Override
    public void close() throws IOException {
        server.close();
    }
}
