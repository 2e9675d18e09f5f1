package quill.official;

import com.helger.phive.api.execute.ValidationExecutionManager;
import com.helger.phive.api.executorset.IValidationExecutorSet;
import com.helger.phive.api.executorset.ValidationExecutorSetRegistry;
import com.helger.phive.api.validity.IValidityDeterminator;
import com.helger.phive.en16931.EN16931Validation;
import com.helger.phive.xml.source.IValidationSourceXML;
import com.helger.phive.xml.source.ValidationSourceXML;
import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import org.w3c.dom.Document;

/** The official rules of EN 16931, version 1.3.16 of its validation artefacts, for the tests of more than one module. */
public final class OfficialRules {
    private static final ValidationExecutorSetRegistry<IValidationSourceXML> REGISTRY =
            new ValidationExecutorSetRegistry<>();

    static {
        EN16931Validation.initEN16931(REGISTRY);
    }

    private OfficialRules() {}

    /** What the rules find wrong; empty for a document that keeps them. */
    public static List<String> errors(byte[] ubl) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        Document document = factory.newDocumentBuilder().parse(new ByteArrayInputStream(ubl));
        boolean note = "CreditNote".equals(document.getDocumentElement().getLocalName());
        IValidationExecutorSet<IValidationSourceXML> rules = REGISTRY.getOfID(
                note ? EN16931Validation.VID_UBL_CREDIT_NOTE_1316 : EN16931Validation.VID_UBL_INVOICE_1316);
        List<String> errors = new ArrayList<>();
        ValidationExecutionManager.executeValidation(
                        IValidityDeterminator.createDefault(), rules, ValidationSourceXML.create("ubl", document))
                .forEach(result -> result.getErrorList().forEach(e -> {
                    if (e.isError()) {
                        errors.add(e.getErrorID() + " " + e.getErrorText(java.util.Locale.UK));
                    }
                }));
        return errors;
    }
}
