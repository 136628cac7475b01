using System.Diagnostics;
using System.Net.Sockets;
using MimeKit;
using Vlei.Tests.Documents;

namespace Vlei.Tests.Deliveries;

/// <summary>Against a mail server as many run it, with STARTTLS, a certificate of our own making and a login.</summary>
public sealed class MailServerTests : IDisposable
{
    private const string Secret = "correct-horse-battery";
    private const int Patience = 100;

    private readonly Tool _tool = new Tool().WithDemo();
    private Process? _server;

    public void Dispose()
    {
        _server?.Kill(entireProcessTree: true);
        _server?.WaitForExit();
        _server?.Dispose();
        _tool.Dispose();
    }

    [Fact]
    public void A_letter_arrives_over_a_secured_line_and_who_is_not_trusted_gets_nothing()
    {
        if (Environment.UserName != "root")
        {
            Assert.Skip("the server is started by root");
        }

        var port = Start();
        Configure(port, "starttls", $"trust = \"{_tool.PathOf("ca.pem")}\"\n");
        Send(Secret).Done();
        var letter = Assert.Single(Letters(1));
        Assert.Equal("olga@example.org", letter.To.Mailboxes.Single().Address);
        Assert.Equal("Øl Ga", letter.To.Mailboxes.Single().Name);
        Assert.Contains("esmtpsa", letter.Headers["Received"], StringComparison.Ordinal);
        using var bytes = new MemoryStream();
        ((MimePart)letter.Attachments.Single()).Content!.DecodeTo(bytes, TestContext.Current.CancellationToken);
        Assert.Equal(File.ReadAllBytes(_tool.PathOf("reedwater/out/balance-sheet/2026-05/balance-sheet.pdf")), bytes.ToArray());
        var refused = Send("wrong");
        Assert.Equal(75, refused.Status);
        Assert.Contains("does not take the login of books", refused.Messages);
        Configure(port, "starttls", "");
        refused = Send(Secret);
        Assert.Equal(75, refused.Status);
        Assert.Contains("a certificate that is not trusted, of CN=localhost, signed by CN=Test", refused.Messages);
        Configure(port, "none", $"trust = \"{_tool.PathOf("ca.pem")}\"\n");
        Assert.Equal(75, Send(Secret).Status);

        // The name on the certificate counts too.
        Configure(port, "starttls", $"trust = \"{_tool.PathOf("ca.pem")}\"\n", "127.0.0.1");
        Assert.Equal(75, Send(Secret).Status);
        Assert.Single(Letters(1));
        Assert.DoesNotContain(Secret, Run("outbox").Output, StringComparison.Ordinal);
    }

    private Outcome Send(string secret) => _tool.Run(
        [("MAIL_SECRET", secret)], "send", "balance-sheet", "--to", "Øl Ga <olga@example.org>", "--yes", "--book", "reedwater");

    private Outcome Run(params string[] arguments) => _tool.Run([], [.. arguments, "--book", "reedwater"]);

    private void Configure(int port, string security, string more, string server = "localhost") => _tool.Write(
        "reedwater/mail.toml",
        $"server = \"{server}\"\nport = {port}\nsecurity = \"{security}\"\nuser = \"books\"\npassword = \"env:MAIL_SECRET\"\n"
            + $"from = \"books@reedwater.example\"\ntimeout = 10\n{more}");

    private List<MimeMessage> Letters(int count)
    {
        var folder = _tool.PathOf("mail/new");
        for (var waited = 0; waited < Patience && (!Directory.Exists(folder) || Directory.GetFiles(folder).Length < count); waited++)
        {
            Thread.Sleep(Patience);
        }

        return [.. Directory.GetFiles(folder).Select(path => MimeMessage.Load(path, TestContext.Current.CancellationToken))];
    }

    // It changes to a person of its own, who must be able to come to its files.
    private int Start()
    {
        File.SetUnixFileMode(_tool.Folder, (UnixFileMode)0b111_101_101);
        foreach (var folder in new[] { "spool", "mail" })
        {
            Directory.CreateDirectory(_tool.PathOf(folder));
        }

        Openssl("req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=Test", "-keyout", "ca.key", "-out", "ca.pem");
        Openssl("req", "-newkey", "rsa:2048", "-nodes", "-subj", "/CN=localhost", "-keyout", "server.key", "-out", "server.csr");
        _tool.Write("names", "subjectAltName=DNS:localhost\n");
        Openssl(
            "x509", "-req", "-in", "server.csr", "-CA", "ca.pem", "-CAkey", "ca.key", "-CAcreateserial", "-days", "2", "-extfile", "names",
            "-out", "server.pem");
        var port = FreePort();
        _tool.Write("server.conf", $$$"""
            primary_hostname = localhost
            daemon_smtp_ports = {{{port}}}
            local_interfaces = 127.0.0.1
            tls_advertise_hosts = *
            tls_certificate = {{{_tool.Folder}}}/server.pem
            tls_privatekey = {{{_tool.Folder}}}/server.key
            spool_directory = {{{_tool.Folder}}}/spool
            log_file_path = {{{_tool.Folder}}}/spool/%slog
            keep_environment =
            acl_smtp_rcpt = known
            acl_smtp_data = all
            begin acl
            known:
              accept authenticated = *
              deny message = a login is needed
            all:
              accept
            begin routers
            keep:
              driver = accept
              transport = keep
            begin transports
            keep:
              driver = appendfile
              directory = {{{_tool.Folder}}}/mail
              maildir_format
              user = Debian-exim
            begin authenticators
            plain:
              driver = plaintext
              public_name = PLAIN
              server_prompts = :
              server_condition = ${if eq{$auth2:$auth3}{books:correct-horse-battery}}
              server_set_id = $auth2
              server_advertise_condition = ${if def:tls_in_cipher}

            """);
        Shell.Run(_tool.Folder, "chown", "Debian-exim", "spool", "mail", "server.key");
        _server = Process.Start(new ProcessStartInfo("exim4", ["-bdf", "-C", _tool.PathOf("server.conf")])
        {
            RedirectStandardError = true, RedirectStandardOutput = true,
        })!;
        for (var waited = 0; waited < Patience; waited++)
        {
            try
            {
                using var client = new TcpClient("127.0.0.1", port);
                return port;
            }
            catch (SocketException)
            {
                Assert.False(_server.HasExited, "the mail server does not start");
                Thread.Sleep(Patience);
            }
        }

        return port;
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port;
    }

    private void Openssl(params string[] arguments) => Shell.Run(_tool.Folder, "openssl", arguments);
}
