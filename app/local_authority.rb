# frozen_string_literal: true

require "fileutils"
require "ipaddr"
require "openssl"

# Certificates for the addresses of this machine, by an authority of its own, so that phones speak to it in secret. The authority stays;
# the certificate is made again when the addresses are others, or it is old.
class LocalAuthority
  AUTHORITY_DAYS = 3650
  CERTIFICATE_DAYS = 365
  # It is renewed so long before its end.
  EARLY_DAYS = 30
  DAY = 86_400

  attr_reader :folder

  # @param folder [String] made when missing; nobody else may read it
  def initialize(folder)
    @folder = folder
    FileUtils.mkdir_p(folder, mode: 0o700)
  end

  def authority_file = File.join(folder, "authority.pem")
  def certificate_file = File.join(folder, "certificate.pem")
  def key_file = File.join(folder, "certificate.key")

  # Makes what is missing.
  # @param names [Array<String>] addresses and host names
  # @return [self]
  def ready(names)
    make_authority unless File.exist?(authority_file) && File.exist?(authority_key_file)
    make_certificate(names) unless good?(names)
    self
  end

  private

  def authority_key_file = File.join(folder, "authority.key")
  def authority = OpenSSL::X509::Certificate.new(File.read(authority_file))

  def good?(names)
    return false unless File.exist?(certificate_file) && File.exist?(key_file)

    found = OpenSSL::X509::Certificate.new(File.read(certificate_file))
    found.not_after > Time.now + (EARLY_DAYS * DAY) && found.verify(authority.public_key) && alternatives(found).sort == alternative_words(names).sort
  rescue OpenSSL::OpenSSLError
    false
  end

  def alternatives(certificate)
    certificate.extensions.find { |one| one.oid == "subjectAltName" }&.value.to_s.split(", ").map { |word| word.sub("IP Address:", "IP:") }
  end

  def alternative_words(names) = names.map { |name| address?(name) ? "IP:#{name}" : "DNS:#{name}" }

  def address?(name)
    IPAddr.new(name)
  rescue IPAddr::Error
    nil
  end

  def make_authority
    key = OpenSSL::PKey::EC.generate("prime256v1")
    made = blank("Kind Satchel on #{Socket.gethostname}", key, AUTHORITY_DAYS)
    made.issuer = made.subject
    extensions = { "basicConstraints" => ["CA:TRUE,pathlen:0", true], "keyUsage" => ["keyCertSign,cRLSign", true], "subjectKeyIdentifier" => ["hash", false] }
    add(made, made, extensions)
    made.sign(key, "SHA256")
    write(authority_key_file, key.to_pem)
    write(authority_file, made.to_pem)
    FileUtils.rm_f(certificate_file)
  end

  def make_certificate(names)
    key = OpenSSL::PKey::EC.generate("prime256v1")
    made = blank(names.first || "localhost", key, CERTIFICATE_DAYS)
    made.issuer = authority.subject
    add(made, authority, "basicConstraints" => ["CA:FALSE", true], "keyUsage" => ["digitalSignature", true], "extendedKeyUsage" => ["serverAuth", false],
                         "subjectAltName" => [alternative_words(names).join(","), false], "authorityKeyIdentifier" => ["keyid", false])
    made.sign(OpenSSL::PKey.read(File.read(authority_key_file)), "SHA256")
    write(key_file, key.to_pem)
    write(certificate_file, made.to_pem)
  end

  def blank(name, key, days)
    OpenSSL::X509::Certificate.new.tap do |made|
      made.version = 2
      made.serial = OpenSSL::BN.rand(120)
      made.subject = OpenSSL::X509::Name.new([["CN", name]])
      made.public_key = key
      made.not_before = Time.now - DAY
      made.not_after = Time.now + (days * DAY)
    end
  end

  def add(made, issuer, extensions)
    factory = OpenSSL::X509::ExtensionFactory.new(issuer, made)
    extensions.each { |oid, (value, critical)| made.add_extension(factory.create_extension(oid, value, critical)) }
  end

  # Never half written, and never readable by others.
  def write(path, text)
    File.open("#{path}.new", File::WRONLY | File::CREAT | File::TRUNC, 0o600) { |file| file.write(text) }
    File.rename("#{path}.new", path)
  end
end
