# frozen_string_literal: true

require "fileutils"
require "ipaddr"
require "openssl"

# Certificates for the addresses of this machine, by an authority of its own, so that phones speak to it in secret.
# The authority stays; the certificate is made again when the addresses are others, or it is old.
class LocalAuthority
  AUTHORITY_DAYS = 730
  CERTIFICATE_DAYS = 365
  # It is renewed so long before its end.
  EARLY_DAYS = 30
  DAY = 86_400
  # Where networks of one's own lie (RFC 1918, 3927, 4193, 4291, 6598), and this machine itself: an address among them
  # may change, and the authority still speaks for it.
  OWN_RANGES = %w[10.0.0.0/8 172.16.0.0/12 192.168.0.0/16 169.254.0.0/16 100.64.0.0/10 127.0.0.0/8 fc00::/7 fe80::/10
                  ::1/128]
               .map do |range|
    IPAddr.new(range)
  end.freeze

  # @param text [String] of a certificate
  # @return [String] SHA-256 of it, in pairs
  def self.fingerprint(text)
    OpenSSL::Digest::SHA256.hexdigest(OpenSSL::X509::Certificate.new(text).to_der).upcase.scan(/../).join(":")
  end

  attr_reader :folder

  # @param folder [String] made when missing; nobody else may read it
  def initialize(folder)
    @folder = folder
    FileUtils.mkdir_p(folder, mode: 0o700)
  end

  # @return [String] path of the certificate that devices trust
  def authority_file = File.join(folder, "authority.pem")

  # @return [String] path of the server's own certificate
  def certificate_file = File.join(folder, "certificate.pem")

  # @return [String] path of its key
  def key_file = File.join(folder, "certificate.key")

  # Makes what is missing.
  # @param names [Array<String>] addresses and host names
  # @return [self]
  def ready(names)
    make_authority(names) unless File.exist?(authority_key_file) && speaks_for?(names)
    make_certificate(names) unless good?(names)
    self
  end

  private

  def authority_key_file = File.join(folder, "authority.key")
  def authority = OpenSSL::X509::Certificate.new(File.read(authority_file))

  def good?(names)
    return false unless File.exist?(certificate_file) && File.exist?(key_file)

    found = OpenSSL::X509::Certificate.new(File.read(certificate_file))
    found.not_after > Time.now + (EARLY_DAYS * DAY) && found.verify(authority.public_key) &&
      alternatives(found).sort == alternative_words(names).sort
  rescue OpenSSL::OpenSSLError
    false
  end

  def alternatives(certificate)
    certificate.extensions.find do |one|
      one.oid == "subjectAltName"
    end&.value.to_s.split(", ").map { |word| word.sub("IP Address:", "IP:") }
  end

  def alternative_words(names) = names.map { |name| address?(name) ? "IP:#{name}" : "DNS:#{name}" }

  def address?(name)
    IPAddr.new(name)
  rescue IPAddr::Error
    nil
  end

  # Whether the existing authority covers these names and is not about to expire.
  def speaks_for?(names)
    return false unless File.exist?(authority_file)

    found = authority
    said = found.extensions.find { |one| one.oid == "nameConstraints" }&.value.to_s.split("\n").map(&:strip)
    found.not_after > Time.now + (EARLY_DAYS * DAY) && (particular(names) - said).empty?
  rescue OpenSSL::OpenSSLError
    false
  end

  # What the authority is limited to: its own ranges, and of some names those that lie in none of them.
  def constraints(names)
    OWN_RANGES.map { |range| range_word(range) } + particular(names | [Socket.gethostname, "localhost"])
  end

  def particular(names)
    names.filter_map do |name|
      address = address?(name) or next "DNS:#{name}"
      range_word(address) if OWN_RANGES.none? { |range| range.include?(address) }
    end
  end

  # As OpenSSL writes it: an address, and which of its bits count.
  def range_word(range) = "IP:#{range}/#{range.netmask}"

  def make_authority(names)
    key = OpenSSL::PKey::EC.generate("prime256v1")
    made = blank("Kind Satchel on #{Socket.gethostname}", key, AUTHORITY_DAYS)
    made.issuer = made.subject
    extensions = { "basicConstraints" => ["CA:TRUE,pathlen:0", true], "keyUsage" => ["keyCertSign,cRLSign", true],
                   "subjectKeyIdentifier" => ["hash", false],
                   "nameConstraints" => [constraints(names).map { |word| "permitted;#{word}" }.join(","), true] }
    add(made, made, extensions)
    made.sign(key, "SHA256")
    write(authority_key_file, key.to_pem)
    write(authority_file, made.to_pem)
    FileUtils.rm_f(certificate_file)
  end

  def make_certificate(names)
    key = OpenSSL::PKey::EC.generate("prime256v1")
    made = blank("Kind Satchel at #{names.first || 'localhost'}", key, CERTIFICATE_DAYS)
    made.issuer = authority.subject
    add(made, authority, "basicConstraints" => ["CA:FALSE", true], "keyUsage" => ["digitalSignature", true],
                         "extendedKeyUsage" => ["serverAuth", false],
                         "subjectAltName" => [alternative_words(names).join(","), false],
                         "authorityKeyIdentifier" => ["keyid", false])
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
