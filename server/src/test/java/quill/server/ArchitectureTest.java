package quill.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.testng.annotations.Test;

/** The arrows of the house. */
public class ArchitectureTest {
    private final JavaClasses all = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("quill");

    @Test
    public void theCoreKnowsNothingButJavaAndMoney() {
        classes()
                .that()
                .resideInAPackage("quill.core..")
                .should()
                .onlyDependOnClassesThat()
                .resideInAnyPackage("quill.core..", "java..", "org.joda.money..")
                .check(all);
    }

    @Test
    public void theCoreHasNoClockOfItsOwn() {
        noClasses()
                .that()
                .resideInAPackage("quill.core..")
                .should()
                .callMethod(java.time.LocalDate.class, "now")
                .orShould()
                .callMethod(java.time.Instant.class, "now")
                .orShould()
                .dependOnClassesThat()
                .areAssignableTo(java.time.Clock.class)
                .check(all);
    }

    @Test
    public void theServerReachesTheStandInsOnlyFromOutside() {
        noClasses()
                .that()
                .resideInAPackage("quill.server..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("quill.standins..")
                .check(all);
    }

    @Test
    public void featuresDoNotRunInCircles() {
        slices().matching("quill.server.(*)..").should().beFreeOfCycles().check(all);
    }

    @Test
    public void partsOfTheCoreDoNotRunInCircles() {
        slices().matching("quill.core.(*)..").should().beFreeOfCycles().check(all);
    }

    @Test
    public void controllersLeaveTheDatabaseToOthers() {
        noClasses()
                .that()
                .haveSimpleNameEndingWith("Controller")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.springframework.jdbc..")
                .check(all);
    }
}
