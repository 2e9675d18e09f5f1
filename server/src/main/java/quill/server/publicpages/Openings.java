package quill.server.publicpages;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import quill.server.dispatch.Correspondence;
import quill.server.documents.Document;
import quill.server.documents.PageOpenings;
import quill.server.running.DiskSpace;

/** Notes that a client opened a page. */
@Component
class Openings {
    private static final Logger LOG = LoggerFactory.getLogger(Openings.class);
    private final PageOpenings openings;
    private final Correspondence correspondence;
    private final DiskSpace disk;

    Openings(PageOpenings openings, Correspondence correspondence, DiskSpace disk) {
        this.openings = openings;
        this.correspondence = correspondence;
        this.disk = disk;
    }

    /** The page is shown whether or not this can be noted: two tabs at the same moment, or no room on the disk. */
    void note(Document document) {
        if (!disk.isEnough()) {
            return;
        }
        try {
            openings.opened(document);
            correspondence.opened(document.id());
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("opening of the page of {} not noted", document.number(), e);
        }
    }
}
