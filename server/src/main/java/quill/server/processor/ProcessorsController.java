package quill.server.processor;

import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.server.common.Proof;
import quill.server.processor.ProcessorRepository.Stored;

/** Card processors, changed only by somebody who gives the passphrase again. */
@RestController
@RequestMapping("/api/processors")
class ProcessorsController {
    private static final String WHAT = "card processor";
    private final ProcessorSettings settings;
    private final Proof proof;

    ProcessorsController(ProcessorSettings settings, Proof proof) {
        this.settings = settings;
        this.proof = proof;
    }

    @GetMapping
    ProcessorSettings.ProcessorsView all() {
        return settings.view();
    }

    @PostMapping
    ProcessorSettings.ProcessorsView add(@RequestBody ProcessorSettings.TypedProcessor typed) {
        return keep(settings.checked(null, typed));
    }

    @PutMapping("/{id}")
    ProcessorSettings.ProcessorsView change(
            @PathVariable long id, @RequestBody ProcessorSettings.TypedProcessor typed) {
        return keep(settings.checked(id, typed));
    }

    private ProcessorSettings.ProcessorsView keep(Stored checked) {
        proof.require(WHAT);
        settings.keep(checked);
        return settings.view();
    }

    @DeleteMapping("/{id}")
    ProcessorSettings.ProcessorsView remove(@PathVariable long id, @RequestParam int version) {
        settings.removable(id);
        proof.require(WHAT);
        settings.remove(id, version);
        return settings.view();
    }

    /** Asks it whether it answers and knows the key; nothing is changed. */
    @PostMapping("/{id}/trial")
    ProcessorSettings.ProcessorTrial tryIt(@PathVariable long id) {
        return settings.tryIt(id);
    }
}
