using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Security;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using System.Text.Json;

namespace Gesamt.Web.Tests;

/// <summary>The studio as it stands on the web: behind a real proxy (nginx, from Debian's packages) that speaks TLS.</summary>
public sealed class ProxyTests
{
    private sealed class Proxy : IDisposable
    {
        private readonly Folder folder = new();
        private readonly Process nginx;

        public int Port { get; } = Server.FreePort();
        public string Address => $"https://localhost:{Port}";

        public int PlainPort { get; } = Server.FreePort();

        /// <param name="tells">Whether it says by which way and from where its visitors came.</param>
        /// <param name="example">The configuration that ships with the program, in place of one of the tests' own.</param>
        public Proxy(int behind, bool tells = true, string? example = null)
        {
            using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
            using var certificate = new CertificateRequest(
                "CN=localhost",
                key,
                HashAlgorithmName.SHA256
            ).CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
            File.WriteAllText(folder.Of("certificate.pem"), certificate.ExportCertificatePem());
            File.WriteAllText(folder.Of("key.pem"), key.ExportPkcs8PrivateKeyPem());
            File.WriteAllText(
                folder.Of("nginx.conf"),
                $$"""
                daemon off;
                pid {{folder.Path}}/nginx.pid;
                error_log {{folder.Path}}/error.log;
                events {}
                http {
                  access_log off;
                  client_body_temp_path {{folder.Path}}/body; proxy_temp_path {{folder.Path}}/proxy; fastcgi_temp_path {{folder.Path}}/f; uwsgi_temp_path {{folder.Path}}/u; scgi_temp_path {{folder.Path}}/s;
                  {{(example is null ? Own(behind, tells) : Shipped(example, behind))}}
                }
                """
            );
            nginx = Process.Start(
                new ProcessStartInfo("/usr/sbin/nginx", ["-e", folder.Of("error.log"), "-c", folder.Of("nginx.conf")])
                {
                    RedirectStandardError = true,
                }
            )!;
        }

        private string Own(int behind, bool tells)
        {
            var says = tells
                ? "proxy_set_header X-Forwarded-Proto $scheme; proxy_set_header X-Forwarded-For $http_x_test_visitor;"
                : "";
            return $$"""
                server {
                  listen 127.0.0.1:{{Port}} ssl;
                  ssl_certificate {{folder.Path}}/certificate.pem;
                  ssl_certificate_key {{folder.Path}}/key.pem;
                  location / {
                    proxy_pass http://127.0.0.1:{{behind}};
                    proxy_set_header Host $http_host;
                    {{says}}
                  }
                }
                """;
        }

        /// <summary>The file as it is, with what an owner changes in it: names, ports and certificate.</summary>
        private string Shipped(string example, int behind) =>
            example
                .Replace("listen 80;", $"listen 127.0.0.1:{PlainPort};")
                .Replace("listen 443 ssl", $"listen 127.0.0.1:{Port} ssl")
                .Replace("listen [::]:80;", "")
                .Replace("listen [::]:443 ssl http2;", "")
                .Replace("/etc/letsencrypt/live/studio.example/fullchain.pem", folder.Of("certificate.pem"))
                .Replace("/etc/letsencrypt/live/studio.example/privkey.pem", folder.Of("key.pem"))
                .Replace("studio.example", "localhost")
                .Replace("127.0.0.1:5080", $"127.0.0.1:{behind}");

        public HttpClient Visitor(string from = "198.51.100.7")
        {
            var handler = new SocketsHttpHandler
            {
                UseCookies = true,
                AllowAutoRedirect = false,
                SslOptions = new SslClientAuthenticationOptions
                {
                    RemoteCertificateValidationCallback = (_, _, _, _) => true,
                },
            };
            var client = new HttpClient(handler) { BaseAddress = new(Address), Timeout = Server.Longest };
            // what nginx hands on as the visitor's address: one machine plays them all
            client.DefaultRequestHeaders.Add("X-Test-Visitor", from);
            return client;
        }

        public async Task WaitAsync()
        {
            using var client = Visitor();
            using var patience = new CancellationTokenSource(Server.Longest);
            while (true)
                try
                {
                    await client.GetAsync("/i/none", patience.Token);
                    return;
                }
                catch (HttpRequestException) when (!nginx.HasExited)
                {
                    await Task.Delay(20, patience.Token);
                }
        }

        public void Dispose()
        {
            if (!nginx.HasExited)
                nginx.Kill(entireProcessTree: true);
            nginx.WaitForExit();
            nginx.Dispose();
            folder.Dispose();
        }
    }

    private static Task<(Server, Proxy)> OpenAsync(
        string data,
        bool tells = true,
        params (string, string)[] settings
    ) => OpenAsync(data, tells, null, settings);

    private static async Task<(Server, Proxy)> OpenAsync(
        string data,
        bool tells,
        string? example,
        params (string, string)[] settings
    )
    {
        // the server needs the proxy's address and the proxy the server's port: the port of the proxy is free to choose first
        var behind = Server.FreePort();
        var proxy = new Proxy(behind, tells, example);
        var server = Server.StartReal(
            data,
            [("ASPNETCORE_URLS", $"http://127.0.0.1:{behind}"), ("Gesamt__Address", proxy.Address), .. settings]
        );
        await proxy.WaitAsync();
        using var probe = proxy.Visitor();
        using var patience = new CancellationTokenSource(Server.Longest);
        while ((await probe.GetAsync("/i/none", patience.Token)).StatusCode == HttpStatusCode.BadGateway)
            await Task.Delay(20, patience.Token);
        return (server, proxy);
    }

    private static async Task<HttpResponseMessage> SignInAsync(HttpClient visitor, string password = "harbour light")
    {
        var session = await visitor.GetFromJsonAsync<JsonElement>("/api/session");
        var request = new HttpRequestMessage(HttpMethod.Post, "/api/session")
        {
            Content = JsonContent.Create(new { password }),
        };
        request.Headers.Add("X-Gesamt-Token", session.GetProperty("token").GetString());
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString("n"));
        return await visitor.SendAsync(request);
    }

    [Fact]
    public async Task Behind_a_tls_proxy_the_owner_signs_in_and_cookies_are_secure()
    {
        using var folder = new Folder();
        var (server, proxy) = await OpenAsync(folder.Path);
        using (server)
        using (proxy)
        using (var owner = proxy.Visitor())
        {
            var answer = await SignInAsync(owner);
            Assert.Equal(HttpStatusCode.NoContent, answer.StatusCode);
            Assert.All(
                answer.Headers.GetValues("Set-Cookie"),
                cookie => Assert.Contains("secure", cookie, StringComparison.OrdinalIgnoreCase)
            );
            Assert.Equal("max-age=31536000", Assert.Single(answer.Headers.GetValues("Strict-Transport-Security")));
            Assert.Equal(
                "Ida",
                (await owner.GetFromJsonAsync<JsonElement>("/api/session")).GetProperty("owner").GetString()
            );
            Assert.Equal(
                "198.51.100.7",
                (await owner.GetFromJsonAsync<JsonElement>("/api/sessions"))[0].GetProperty("address").GetString()
            );
        }
    }

    [Fact]
    public async Task The_configuration_of_nginx_that_ships_with_it_serves_a_studio()
    {
        using var folder = new Folder();
        var example = await File.ReadAllTextAsync(Path.Combine(Studio.Root, "deploy", "nginx.conf"));
        var (server, proxy) = await OpenAsync(folder.Path, tells: true, example);
        using (server)
        using (proxy)
        using (var owner = proxy.Visitor())
        {
            // plain HTTP is led to TLS
            var led = await owner.GetAsync($"http://localhost:{proxy.PlainPort}/i/mural");
            Assert.Equal(HttpStatusCode.MovedPermanently, led.StatusCode);
            Assert.Equal("https://localhost/i/mural", led.Headers.Location!.ToString());
            Assert.Equal("Healthy", await owner.GetStringAsync("/health"));
            var answer = await SignInAsync(owner);
            Assert.Equal(HttpStatusCode.NoContent, answer.StatusCode);
            Assert.All(
                answer.Headers.GetValues("Set-Cookie"),
                cookie => Assert.Contains("secure", cookie, StringComparison.OrdinalIgnoreCase)
            );
            // where the visitor comes from is the proxy's own word, whatever a stranger says
            Assert.Equal(
                "127.0.0.1",
                (await owner.GetFromJsonAsync<JsonElement>("/api/sessions"))[0].GetProperty("address").GetString()
            );
            // what open pages are told arrives while it is told
            using var told = await owner.GetStreamAsync("/api/live");
            var first = new byte[64];
            using var patience = new CancellationTokenSource(Server.Longest);
            Assert.True(await told.ReadAsync(first, patience.Token) > 0);
        }
    }

    [Fact]
    public async Task Each_visitor_has_a_rate_limit_of_their_own()
    {
        using var folder = new Folder();
        var (server, proxy) = await OpenAsync(folder.Path, settings: ("Gesamt__SignInsPerMinute", "3"));
        using (server)
        using (proxy)
        using (var guesser = proxy.Visitor("198.51.100.66"))
        using (var owner = proxy.Visitor("198.51.100.7"))
        {
            List<HttpStatusCode> answers = [];
            for (var i = 0; i < 8; i++)
                answers.Add((await SignInAsync(guesser, "guess")).StatusCode);
            Assert.Contains(HttpStatusCode.TooManyRequests, answers);
            Assert.Equal(HttpStatusCode.NoContent, (await SignInAsync(owner)).StatusCode);
        }
    }

    [Fact]
    public async Task A_proxy_that_does_not_say_https_is_told_what_it_must_say()
    {
        using var folder = new Folder();
        var (server, proxy) = await OpenAsync(folder.Path, tells: false);
        using (server)
        using (proxy)
        using (var owner = proxy.Visitor())
        {
            var answer = await owner.GetAsync("/api/session");
            Assert.Equal(HttpStatusCode.MisdirectedRequest, answer.StatusCode);
            Assert.Contains("X-Forwarded-Proto", await answer.Content.ReadAsStringAsync());
            Assert.Equal("Healthy", await owner.GetStringAsync("/health"));
        }
    }

    [Fact]
    public async Task What_a_stranger_says_of_where_they_come_from_is_not_believed()
    {
        using var folder = new Folder();
        // reached directly, and no proxy is trusted
        using var server = Server.StartReal(folder.Path, ("Gesamt__Proxies", "10.0.0.0/8"));
        Assert.True(await server.AnswersAsync());
        using var owner = new HttpClient { BaseAddress = server.Address };
        owner.DefaultRequestHeaders.Add("X-Forwarded-For", "198.51.100.7");
        owner.DefaultRequestHeaders.Add("X-Forwarded-Proto", "https");
        Assert.Equal(HttpStatusCode.NoContent, (await SignInAsync(owner)).StatusCode);
        Assert.Equal(
            "127.0.0.1",
            (await owner.GetFromJsonAsync<JsonElement>("/api/sessions"))[0].GetProperty("address").GetString()
        );
    }
}
