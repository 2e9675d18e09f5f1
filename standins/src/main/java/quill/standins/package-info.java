/** Stand-ins for outside services. They know nothing of the application: it reaches them over HTTP and SMTP only. */
package quill.standins;
