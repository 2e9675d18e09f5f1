/** What every feature needs: amounts on the wire, problem details, the business's clock, live updates. */
package quill.server.common;
