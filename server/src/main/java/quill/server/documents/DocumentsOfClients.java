package quill.server.documents;

import org.springframework.stereotype.Component;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.ClientRows;
import quill.server.common.Json;

/**
 * Documents where two records of one client become one. What was issued keeps the name on its paper; a draft is for the
 * client that stays, and a window that still has it open for the other one is told.
 */
@Component
class DocumentsOfClients implements ClientRows {
    private final DocumentRepository repository;
    private final DocumentContents contents;
    private final Json json;

    DocumentsOfClients(DocumentRepository repository, DocumentContents contents, Json json) {
        this.repository = repository;
        this.contents = contents;
        this.json = json;
    }

    @Override
    public void move(ClientId from, ClientId into, String name) {
        for (DocumentId id : repository.draftsOf(from)) {
            TypedDraft typed = json.read(contents.typed(id).orElseThrow(), TypedDraft.class);
            contents.retype(id, json.write(typed.forClient(into)));
        }
        repository.move(from, into, name);
    }
}
