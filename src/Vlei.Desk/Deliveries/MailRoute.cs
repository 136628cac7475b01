using System.Net.Security;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>Hands letters to a mail server (RFC 5321), one after the other through one connection.</summary>
internal sealed class MailRoute(MailSettings settings) : IRoute
{
    // 4yz is a server's "not now", 5yz its "no" (RFC 5321, 4.2.1).
    private const int FirstPermanent = 500;

    private SmtpClient? _client;
    private string? _secret;

    /// <inheritdoc/>
    public TryOutcome Send(Delivery delivery, IReadOnlyList<Recipient> to, byte[] letter)
    {
        try
        {
            using var message = MimeMessage.Load(new MemoryStream(letter, writable: false));
            var recipients = to.Select(one => new MailboxAddress("", one.Place))
                .Concat(message.Cc.Mailboxes).DistinctBy(one => one.Address, StringComparer.OrdinalIgnoreCase).ToList();
            if (recipients.Find(one => !settings.Allows(one.Address)) is { } other)
            {
                return new TryOutcome($"{settings.Path} does not allow {other.Address}.", IsFinal: true);
            }

            Connect();
            _client!.Send(message, new MailboxAddress("", settings.From.Place), recipients);
            return TryOutcome.Sent;
        }
        catch (ProblemException problem)
        {
            return Failed($"{problem.Message} {problem.Advice}".TrimEnd(), isFinal: false);
        }
        catch (SmtpCommandException refused)
        {
            return Failed(
                $"{settings.Server} says {(int)refused.StatusCode}: {refused.Message}".ReplaceLineEndings(" "),
                (int)refused.StatusCode >= FirstPermanent);
        }
        catch (AuthenticationException refused)
        {
            return Failed($"{settings.Server} does not take the login of {settings.User}: {refused.Message}", isFinal: false);
        }
        catch (SslHandshakeException untrusted) when (untrusted.ServerCertificate is X509Certificate2 shown)
        {
            return Failed(
                $"{settings.Server} shows a certificate that is not trusted, "
                    + $"of {shown.Subject}, signed by {shown.Issuer}; where it is right, "
                    + $"name the file of its signer in {settings.Path}: trust = \"ca.pem\".", isFinal: false);
        }
        catch (Exception lost) when (lost is IOException or SocketException or ProtocolException or OperationCanceledException
            or TimeoutException or ServiceNotConnectedException or SslHandshakeException or NotSupportedException)
        {
            return Failed($"{settings.Server}, port {settings.Port}: {FirstLine(lost.Message)}", isFinal: false);
        }
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        try
        {
            _client?.Disconnect(quit: true);
        }
        catch (Exception lost) when (lost is IOException or SocketException or ProtocolException or TimeoutException
            or OperationCanceledException or CommandException)
        {
            // What was sent was taken; that the server does not say goodbye changes nothing.
        }

        _client?.Dispose();
    }

    private void Connect()
    {
        if (_client is { IsConnected: true })
        {
            return;
        }

        _client?.Dispose();
        const int Thousand = 1000;
        _client = new SmtpClient
        {
            Timeout = settings.Timeout * Thousand, CheckCertificateRevocation = false, ServerCertificateValidationCallback = IsTrusted,
            LocalDomain = "localhost",
        };
        _client.Connect(settings.Server, settings.Port, settings.Security switch
        {
            MailSecurity.Tls => SecureSocketOptions.SslOnConnect,
            MailSecurity.StartTls => SecureSocketOptions.StartTls,
            _ => SecureSocketOptions.None,
        });
        if (settings.User is { } user)
        {
            _secret ??= MailSecret.Read(settings);
            _client.Authenticate(user, _secret);
        }
    }

    // A certificate of a firm's own making is as good as another where the person says so; its name and its days must be right
    // all the same.
    private bool IsTrusted(object sender, X509Certificate? certificate, X509Chain? chain, SslPolicyErrors errors)
    {
        if (errors == SslPolicyErrors.None)
        {
            return true;
        }

        if (settings.Trust is not { } trust || errors != SslPolicyErrors.RemoteCertificateChainErrors || certificate is null)
        {
            return false;
        }

        using var own = new X509Chain();
        own.ChainPolicy.TrustMode = X509ChainTrustMode.CustomRootTrust;
        own.ChainPolicy.RevocationMode = X509RevocationMode.NoCheck;
        own.ChainPolicy.CustomTrustStore.ImportFromPemFile(trust);
        using var server = X509CertificateLoader.LoadCertificate(certificate.GetRawCertData());
        return own.Build(server);
    }

    private TryOutcome Failed(string problem, bool isFinal)
    {
        // After a protocol error nobody knows what the other side waits for.
        if (!isFinal)
        {
            _client?.Dispose();
            _client = null;
        }

        return new TryOutcome(MailSecret.Without(problem, _secret), isFinal);
    }

    private static string FirstLine(string message) => message.ReplaceLineEndings("\n").Split('\n')[0].Trim();
}
