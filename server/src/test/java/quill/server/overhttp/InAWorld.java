package quill.server.overhttp;

import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import quill.http.Api;

/** What only speaks HTTP, with a world of its own for each class. */
abstract class InAWorld {
    World world;
    Api api;

    @BeforeClass
    public void open() {
        world = new World();
        api = world.opened();
    }

    @AfterClass(alwaysRun = true)
    public void close() {
        if (world != null) {
            world.close();
        }
    }
}
